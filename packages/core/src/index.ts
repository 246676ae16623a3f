export * from './units.ts';
export type { Draft, Fields, FieldValue, ReadingContext, ReadingHints, RecordReader, Sample } from './reading/types.ts';
export { clearDraft, emptyDraft } from './reading/types.ts';
export { decode, guessEncoding, looksBinary, type Encoding } from './reading/encoding.ts';
export { frame, LONGEST_RECORD, type Frame, type Place } from './reading/framing.ts';
export { FORMATS, guessFormats, lacksDay, openReader, sampleOf, type FormatGuess } from './reading/registry.ts';
export { dateOrder, type DateOrder } from './reading/calendar.ts';
export { shiftOf, zoneFor } from './reading/zone-guess.ts';
export { isZone, zoneClock } from './reading/zones.ts';
export * from './identifiers/types.ts';
export { hash53, identifierKey } from './identifiers/hash.ts';
export { normalPhone, normalValue } from './identifiers/normal.ts';
export { patternProblem } from './identifiers/patterns.ts';
export { Finder } from './identifiers/finder.ts';
export { EVERYWHERE, reachOf, type Reach } from './coverage/reach.ts';
export { joinStretches, stretchesOf, type Stretch } from './coverage/stretches.ts';
export { suggestKinds, type SuggestRecord, type Suggestion } from './identifiers/suggest.ts';
export { STANDARD_KINDS } from './identifiers/supplied.ts';
export { measuresOf, tellingParts, withMeasures } from './shapes/measures.ts';
export { traitsOf } from './shapes/traits.ts';
export { shapeHash, shapeText } from './shapes/shape.ts';
export { withoutNames } from './shapes/without-names.ts';
export { compareWithUsual, type Compared } from './usual/compare.ts';
export { besideAnother, type Beside, type DifferingValue, type Side } from './usual/beside.ts';
export { storyOf, type Chapter } from './story/story.ts';
export { usualOfSteps, type StepUsual } from './usual/steps.ts';
export { Usual } from './usual/index-of.ts';
export { FEWEST_LEGS } from './usual/following-on.ts';
export { learnUsual, type Lesson } from './usual/learn.ts';
export type { Span } from './usual/regularly.ts';
export { surelyContinues } from './usual/continuing.ts';
export type { AtTimes, Continuation, FlowUsual, Saying, UsualSaying, Usually, Volume } from './usual/types.ts';
export { HomeChooser } from './stitching/home.ts';
export { Graph, type GraphKind } from './stitching/graph.ts';
export { overJoining, type OverJoining } from './stitching/guard.ts';
export { ownership, type Edges, type Nodes, type Ownership, type Tie } from './stitching/ownership.ts';
export { discoverLinks, type Discovered } from './identifiers/discover.ts';
export { LaneFinder } from './stitching/lane.ts';
export { carryOver, NAMELESS, STRANGE, type LaneRecords } from './stitching/carry-over.ts';
export { chains, type ChainLink } from './stitching/chain.ts';
export { CLOSE, estimateClocks } from './clocks/estimate.ts';
export { alike, renewed, renewedReadings } from './clocks/account.ts';
export { isAmiss, shiftAt } from './clocks/shift.ts';
export type { ClockEstimate, ClockReading, ClockRecord, ClockSpan } from './clocks/types.ts';
export { MARK, Marker, type Meaning, type MeaningRule } from './path/marks.ts';
export * from './path/types.ts';
export { arranged } from './path/arrange.ts';
export { pathOf } from './path/path.ts';
export { spentOf } from './path/spent.ts';
export * from './findings/types.ts';
export { withTwin, type Twin } from './findings/doubled.ts';
export { verdictByLeg } from './findings/by-leg.ts';
export { durationWords, firstLine, headline, sentenceText } from './findings/sentence.ts';
export { candidatesIn, isList, listedIn, LONGEST_PASTE, MOST_AT_ONCE, type Candidate } from './search/paste.ts';
export { compileSearch, isOwn, OWN_FIELDS, textsOf, type Searchable, type Test } from './search/language/evaluate.ts';
export { LONGEST_SEARCH, parseSearch, type Parsed } from './search/language/parse.ts';
export type { Condition, Operator, Search, SearchProblem, Value } from './search/language/tree.ts';
export { durationOf, levelIndex, numberOf, timeOf } from './search/language/values.ts';
export { piecesOf, printCondition, printSearch, printValue, withoutPiece, withValue, type Piece } from './search/language/print.ts';
export { completed, completionAt, OPERATORS, type CompletionPlace } from './search/language/complete.ts';
export { compileRules, HEARTBEATS, SUPPLIED_RULES, type QuietRule } from './quiet/rules.ts';
export { recurring, searchOfRecurring, type Recurring, type Series } from './quiet/recurrence.ts';
export { contrast, type Contrast, type Counted } from './statistics/contrast.ts';
export { distribution, type Distribution } from './statistics/distribution.ts';
export { ticketText, type Ticket, type TicketLine } from './exchange/ticket.ts';
export { lineStarts } from './reading/lines.ts';
export { nearestName } from './search/language/nearest.ts';
export { fieldNames } from './search/language/fields.ts';
export { compareRanks, Foremost, rankOf, rankOfText, type Rank } from './search/language/rank.ts';
export { signOf, versionIn } from './changes/sign.ts';
export { changesOf, statesAt } from './changes/derive.ts';
export { changesBefore, likelierSince, type BeforeAndSince } from './changes/before.ts';
export { changeWords } from './changes/words.ts';
export { SIGN_KINDS, type Change, type ChangeKind, type KnownState, type Sign, type SignKind, type SignSpan } from './changes/types.ts';
export { codesIn, systemWord } from './explain/find.ts';
export { CODE_SYSTEMS, type CodeSystem, type Explanation, type FoundCode, type OwnCode } from './explain/types.ts';
export { isOwnFrame, originOf, ownByName, tracesIn } from './structure/traces/traces.ts';
export type { Thrown, Trace, TraceFrame } from './structure/traces/types.ts';
export { encodedIn, type Encoded } from './structure/encoded.ts';
export { partsOfMessage } from './structure/parts.ts';
export type { Broken, Part, TreeNode } from './structure/types.ts';
export { csvLine } from './exchange/csv.ts';
export { otlpTrace } from './exchange/otlp.ts';
export { otlpLogs } from './exchange/otlp-logs.ts';
export type { ExchangedStep, ExchangedStrand } from './exchange/strand.ts';
export { XES_HEAD, XES_TAIL, xesTrace } from './exchange/xes.ts';
export { problemsOf, type RunbookProblem } from './runbooks/check.ts';
export { filledSearch, filledText, findingText } from './runbooks/fill.ts';
export { SUPPLIED_RUNBOOKS } from './runbooks/supplied.ts';
export {
  MOST_TIMES,
  MOST_VALUES,
  type Blank,
  type FindingPart,
  type Runbook,
  type RunbookStep,
  type StepLook,
  type StepSum,
} from './runbooks/types.ts';
