// Made from the endpoints by `npm run contract`; not to be changed by hand.

import type { Against, AgainstStrand, AgainstUsual, Call, CallCounts, CallPage, Change, Contrasted, Coverage, DataSet, DataSetHistory, Departures, DifferentShapes, FaultDetail, FaultParting, Faults, FieldValues, Flow, FlowDeclaration, FlowUsual, FollowInfo, FoundPage, GroupsPart, Health, HostClock, IdentifierKind, ImportInfo, InCommon, Instant, JobRuns, Jobs, KeptCode, KeptWhole, KindSuggestions, KnownCause, KnownState, LayoutTrialInfo, ListedAnswer, LogRecord, Meaning, MeaningsSaved, OriginalLines, OwnPackage, Page, QuietRuleBody, QuietRuleInfo, RankedPart, ReadAgain, RecordInFull, Rounds, RunbookInfo, Saved, SearchAnswer, ShapeDetail, SinceThen, SourceInfo, SourceText, StepResult, StoryChapter, Strand, StrandCounts, StrandData, StrandGroup, StrandLine, StrandSeries, StrandSummary, Summary, TextLines, Timeline, TimelinePart, WeightRuleBody, WeightRuleInfo, WorkInfo, WrittenPlaces } from './index.ts';
import type { Runbook, StepSum } from '@fadenweg/core/runbooks';

/** What each call of the API takes. */
export interface Asked {
  /** Takes back a change that was registered */
  'delete /changes/{id}': { params: { id: string; } };
  /** Removes the demo data, whole */
  'delete /demo': {};
  /** Takes away what a code of one’s own means */
  'delete /explanations/{id}': { params: { id: number; } };
  /** Takes back what was put together with a fault, or parted of it, last */
  'delete /faults/{id}/hand': { params: { id: number; } };
  /** Takes back what was said of a fault last */
  'delete /faults/{id}/said': { params: { id: number; } };
  /** Takes a declared flow away */
  'delete /flows/{name}': { params: { name: string; } };
  /** Stops following; what was read stays */
  'delete /follows/{id}': { params: { id: number; } };
  /** Takes a kind of identifier away */
  'delete /identifier-kinds/{name}': { params: { name: string; } };
  /** Cancels a running import, takes a finished one out; nothing of it stays */
  'delete /imports/{id}': { params: { id: number; } };
  /** Takes back what was kept about a cause */
  'delete /known-causes/{id}': { params: { id: number; } };
  /** Takes back that a package is the program’s own */
  'delete /own-packages': { query: { prefix: string; } };
  /** Takes a quiet rule of one’s own away */
  'delete /quiet-rules/{name}': { params: { name: string; } };
  /** Forgets a runbook of one’s own */
  'delete /runbooks/{id}': { params: { id: number; } };
  /** Forgets what was saved */
  'delete /saved/{id}': { params: { id: number; } };
  /** Forgets the source texts of a version */
  'delete /source-texts/{id}': { params: { id: number; } };
  /** Takes away what was said of a weight */
  'delete /weights/{name}': { params: { name: string; } };
  /** Cancels what waits or runs; what runs ends behind its next step */
  'delete /work/{id}': { params: { id: number; } };
  /** A party, component, host or version beside all others of the same flows, and beside itself before: outcomes, durations, time in databases and elsewhere, by time; others of its kind */
  'get /against': { query: { what: ("party" | "component" | "host" | "version"); name: string; of?: string; from: string; to: string; environment: string; zone?: string; } };
  /** Calls that began in a window: who called whom, how they went, how long until something was heard, until they were taken, and how long was talked */
  'get /calls': { query: { from: string; to: string; environment: string; zone?: string; number?: string; caller?: string; called?: string; state?: string; status?: string; outcome?: string; sort?: ("-started" | "-setup" | "-postdial" | "-talking" | "talking"); after?: string; limit?: number; } };
  /** How many calls began in a window, by how they went */
  'get /calls/counts': { query: { from: string; to: string; environment: string; zone?: string; number?: string; caller?: string; called?: string; state?: string; status?: string; outcome?: string; } };
  /** Versions, settings, restarts, fail-overs and what was registered, in order of time */
  'get /changes': { query?: { from?: string; to?: string; component?: string; environment?: string; after?: string; limit?: number; } };
  /** What was last known at an instant: versions, settings, what runs */
  'get /changes/states': { query: { at: string; environment?: string; } };
  /** When each source speaks: stretches within a window */
  'get /coverage': { query?: { from?: string; to?: string; } };
  /** Files, tables and feeds that runs read and write in a window: who does, when each was written last, how many rows are usual, what failed */
  'get /data-sets': { query: { from: string; to: string; environment: string; zone?: string; } };
  /** One of them, of an environment: who wrote and read it in a window, the latest first */
  'get /data-sets/one': { query: { from: string; to: string; environment: string; zone?: string; name: string; of: string; } };
  /** What codes of one’s own mean; to be kept as a file, and brought in again by POST */
  'get /explanations': {};
  /** Errors of a window by where they come from: strands that failed by each, since when, state; each failed strand counts at exactly one */
  'get /faults': { query: { from: string; to: string; environment: string; zone?: string; sort?: ("strands" | "records" | "newest" | "latest" | "gravest"); component?: string; state?: ("new" | "in-hand" | "mended" | "tolerated" | "returned"); owner?: string; version?: string; weight?: ("slight" | "notable" | "serious" | "grave"); flow?: string; all?: boolean; } };
  /** A fault in a window: its course, whom and what it hits more than others, versions, what followed from it, an example, what was said of it */
  'get /faults/{id}': { query: { from: string; to: string; environment: string; zone?: string; }; params: { id: number; } };
  /** How many records of a fault hold some words, letter for letter: what would be parted by them */
  'get /faults/{id}/parts': { query: { words: string; }; params: { id: number; } };
  /** Flows with their usual duration */
  'get /flows': {};
  /** What is usual for a flow, learned from what went well */
  'get /flows/{name}/usual': { params: { name: string; } };
  /** Files and folders that are followed as they grow */
  'get /follows': {};
  /** Versions, state of the database, running imports */
  'get /health': {};
  /** Hosts with their clocks: how far each is ahead, how surely that is known, and what bounds it */
  'get /hosts': {};
  /** The kinds of identifiers that are found */
  'get /identifier-kinds': {};
  /** Kinds of identifiers that the data seem to hold, with figures and a proposed role; the set that names transactions best, where none is declared */
  'get /identifier-kinds/suggestions': {};
  /** The latest imports with their progress */
  'get /imports': {};
  /** Progress and counts of an import */
  'get /imports/{id}': { params: { id: number; } };
  /** Jobs: their learned schedule, the last run and the last good one, rows and duration against the usual, when the next is due, and what did not start in a window */
  'get /jobs': { query: { from: string; to: string; environment: string; zone?: string; sort?: ("gravest" | "last" | "name"); } };
  /** Runs of jobs in a window, each job’s in order of time, and when they were due and did not start */
  'get /jobs/runs': { query: { from: string; to: string; environment: string; zone?: string; flow?: string; } };
  /** Server-sent events: records that a search finds among what comes in from now on, or since the last event that was received */
  'get /live': { query?: { q?: string; environment?: string; sources?: string; quiet?: ("hide" | "show"); since?: string; } };
  /** Server-sent events: strands may have come, grown, or are judged otherwise */
  'get /live/strands': {};
  /** Server-sent events: a strand has grown, or is judged otherwise */
  'get /live/strands/{id}': { params: { id: string; } };
  /** What some messages mean for their strand */
  'get /meanings': {};
  /** Packages and folders that are declared to be the program’s own */
  'get /own-packages': {};
  /** Rules that take noise out of sight */
  'get /quiet-rules': {};
  /** Records of a window that a search finds, paged by key; a page may end early, and `next` goes on */
  'get /records': { query?: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); order?: ("oldest" | "latest"); after?: string; limit?: number; } };
  /** What tells the records with a value of a field from all others among the latest that a search finds */
  'get /records/against': { query: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); field: string; value: string; } };
  /** All records of a window that a search finds, as JSON lines, CSV or OTLP logs, streaming */
  'get /records/export': { query?: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); after?: unknown; order?: ("oldest" | "latest"); format?: ("jsonl" | "csv" | "otlp"); } };
  /** Names of fields that records have, for a search to ask for */
  'get /records/fields': { query?: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); } };
  /** What a search finds, grouped by the values of a field or by strand, part after part from the latest back */
  'get /records/groups': { query: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); by: string; after?: string; } };
  /** The foremost records by a field among what a search finds, part after part from the latest back; `beyond` leaves out what is no better */
  'get /records/ranked': { query: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); by: string; direction?: ("up" | "down"); beyond?: string; limit?: number; after?: string; } };
  /** How many records a search finds, by time slot and level, part after part from the latest back */
  'get /records/tally': { query: { q?: string; from: string; to: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); slotMs: number; after?: string; } };
  /** Counts of a window by time slot and level */
  'get /records/timeline': { query: { from: string; to: string; environment?: string; sources?: string; withoutSources?: string; slots?: number; } };
  /** The most frequent values of fields among the latest records that a search finds */
  'get /records/values': { query: { q?: string; from?: string; to?: string; environment?: string; sources?: string; withoutSources?: string; quiet?: ("hide" | "show"); fields: string; limit?: number; effort?: ("quick" | "thorough"); } };
  /** One record in full, with its original text */
  'get /records/{id}': { params: { id: string; } };
  /** What stood around a record */
  'get /records/{id}/around': { query?: { scope?: ("source" | "component" | "host" | "all"); before?: number; after?: number; }; params: { id: string; } };
  /** A window as a cloth: what came of each flow in each slot of time, how it ended, and what of it departs from what is usual then */
  'get /rounds': { query: { from: string; to: string; environment: string; zone?: string; } };
  /** What departs from the usual in a window: what, since when, how much, whom it concerns, the change before it; the gravest first */
  'get /rounds/departures': { query: { from: string; to: string; environment: string; zone?: string; } };
  /** The state at an instant: what was running and how long, what failed last and when each flow last did well, versions and settings in force, clocks, which sources spoke */
  'get /rounds/instant': { query: { at: string; environment: string; } };
  /** What was different after an instant than before it, as long on both sides: shares of outcomes, durations, findings, each with how likely it is by chance */
  'get /rounds/since': { query: { at: string; environment: string; } };
  /** Runbooks: those that come with the application, and one’s own */
  'get /runbooks': {};
  /** Saved searches, or column sets of records or of strands */
  'get /saved': { query: { what: ("search" | "columns" | "strand-columns"); } };
  /** What a pasted text holds: identifiers found, with their strands */
  'get /search': { query: { text: string; } };
  /** Shapes that are said otherwise in a window than before it, in another window, another environment or on other hosts: new, surging, fading, gone, each with how often usually and how likely by chance; near twins are one */
  'get /shapes/different': { query: { from: string; to: string; environment: string; zone?: string; baseline?: ("before" | "days" | "window" | "environment" | "host"); otherFrom?: string; otherTo?: string; otherEnvironment?: string; host?: string; all?: boolean; } };
  /** A shape in a window and as long before it: how often, what was made one in it, its parameters with their values, whose strands pass it */
  'get /shapes/one': { query: { from: string; to: string; environment: string; zone?: string; component: string; text: string; } };
  /** Versions of components whose source texts are registered */
  'get /source-texts': {};
  /** Lines of one registered file */
  'get /source-texts/{id}/lines': { query: { path: string; from?: number; to?: number; }; params: { id: number; } };
  /** What is collected, and how it is read; the parts of a rotated log are one source */
  'get /sources': {};
  /** One source */
  'get /sources/{id}': { params: { id: number; } };
  /** What of a source was not understood and is kept whole, grouped by look */
  'get /sources/{id}/kept-whole': { query?: { limit?: number; }; params: { id: number; } };
  /** Lines of one file as they were written */
  'get /sources/{id}/original': { query?: { from?: number; count?: number; }; params: { id: number; } };
  /** The files that a source consists of, in order of time */
  'get /sources/{id}/parts': { params: { id: number; } };
  /** The bytes of some lines of one file, to be kept */
  'get /sources/{id}/slice': { query: { from: number; to: number; }; params: { id: number; } };
  /** Strands that overlap the window, paged by key */
  'get /strands': { query?: { identifier?: string; q?: string; flow?: string; outcome?: string; component?: string; host?: string; failedIn?: string; finding?: string; fault?: number; mentions?: number; weight?: ("slight" | "notable" | "serious" | "grave"); quiet?: boolean; environment?: string; from?: string; to?: string; began?: boolean; minMs?: number; maxMs?: number; sort?: ("started" | "-started" | "duration" | "-duration"); after?: string; limit?: number; } };
  /** How many strands of each flow ended how */
  'get /strands/counts': { query?: { identifier?: string; q?: string; flow?: string; outcome?: string; component?: string; host?: string; failedIn?: string; finding?: string; fault?: number; mentions?: number; weight?: ("slight" | "notable" | "serious" | "grave"); quiet?: boolean; environment?: string; from?: string; to?: string; began?: boolean; minMs?: number; maxMs?: number; } };
  /** Strands as JSON lines, CSV, traces of OTLP (JSON lines) or XES, streaming; JSON lines with `records` each with the places of its records */
  'get /strands/export': { query?: { identifier?: string; q?: string; flow?: string; outcome?: string; component?: string; host?: string; failedIn?: string; finding?: string; fault?: number; mentions?: number; weight?: ("slight" | "notable" | "serious" | "grave"); quiet?: boolean; environment?: string; from?: string; to?: string; began?: boolean; minMs?: number; maxMs?: number; records?: boolean; format?: ("jsonl" | "csv" | "otlp" | "xes"); } };
  /** Strands grouped by flow, by party, by the component that gave up or by the first finding: how many ended how, and how long they took */
  'get /strands/groups': { query: { identifier?: string; q?: string; flow?: string; outcome?: string; component?: string; host?: string; failedIn?: string; finding?: string; fault?: number; mentions?: number; weight?: ("slight" | "notable" | "serious" | "grave"); quiet?: boolean; environment?: string; from?: string; to?: string; began?: boolean; minMs?: number; maxMs?: number; by: ("flow" | "party" | "failed-in" | "finding"); limit?: number; } };
  /** What strands of a selection have in common that others of their flow and time hardly have, the clearest first */
  'get /strands/in-common': { query?: { identifier?: string; q?: string; flow?: string; outcome?: string; component?: string; host?: string; failedIn?: string; finding?: string; fault?: number; mentions?: number; weight?: ("slight" | "notable" | "serious" | "grave"); quiet?: boolean; environment?: string; from?: string; to?: string; began?: boolean; minMs?: number; maxMs?: number; } };
  /** One strand as a whole; a merged one answers 308 with its successor, an identifier of several 300 with the choices */
  'get /strands/{id}': { params: { id: string; } };
  /** The strand line by line beside another one, or beside the nearest that went well; 204 where there is none */
  'get /strands/{id}/against': { query?: { other?: string; }; params: { id: string; } };
  /** The strand line by line beside what is usual for its flow; 204 where that is not known */
  'get /strands/{id}/against-usual': { params: { id: string; } };
  /** What there is to say of a strand as a call, and its messages laid out between those who sent them; 204 where it is none */
  'get /strands/{id}/call': { params: { id: string; } };
  /** What a strand read and wrote: the run that brought what it read, those that read afterwards what it wrote, an earlier one with the very same input */
  'get /strands/{id}/data': { params: { id: string; } };
  /** The strand’s records in order of time, with their steps */
  'get /strands/{id}/records': { query?: { after?: string; limit?: number; }; params: { id: string; } };
  /** The strand’s times beside those of its party and of everybody in its flow; 204 where it has no flow */
  'get /strands/{id}/series': { params: { id: string; } };
  /** The strand as a told story: a sentence a step */
  'get /strands/{id}/story': { params: { id: string; } };
  /** What is loaded, from when to when, and what is going on */
  'get /summary': {};
  /** What departs from the usual, as JSON lines, the gravest first: strands and clocks, and shapes that are new, surging, fading or gone; of the last day of the evidence where no window is given */
  'get /unusual/export': { query?: { from?: string; to?: string; environment?: string; zone?: string; } };
  /** What people say weighs how much, the one that decides first */
  'get /weights': {};
  /** Work in the background, the latest first: what runs, what waits, what failed and why */
  'get /work': { query?: { state?: string; after?: string; limit?: number; } };
  /** One piece of work */
  'get /work/{id}': { params: { id: number; } };
  /** Registers a change that no record tells of */
  'post /changes': { body: { what: string; component?: string; host?: string; environment?: string; at?: string; } };
  /** Makes the demo data and brings them in, in the background */
  'post /demo': {};
  /** Adds what codes of one’s own mean; those that are there already are replaced */
  'post /explanations': { body: { items: { code: string; component?: (string | null); title: string; means?: string; causes?: string; next?: string; id?: unknown; changedBy?: unknown; }[]; next?: unknown; } };
  /** Makes a fault of its own of what holds some words, letter for letter, also of what comes later; its strands are judged again */
  'post /faults/{id}/parts': { params: { id: number; }; body: { words: string; } };
  /** Says of a fault that it is new, in hand, mended (in a version, or since an instant) or tolerated (until an instant); what was said before stays in its history */
  'post /faults/{id}/said': { params: { id: number; }; body: { state: ("new" | "in-hand" | "mended" | "tolerated"); owner?: string; note?: string; ticket?: string; version?: string; since?: (string | null); until?: (string | null); } };
  /** Puts another fault together with this one: from now on it counts as this, also of what comes later */
  'post /faults/{id}/together': { params: { id: number; }; body: { other: number; } };
  /** Follows a file or a folder of the server’s machine: what is in it is read, and what it grows by */
  'post /follows': { body: { path: string; environment?: string; zone?: string; stated?: boolean; demo?: boolean; } };
  /** Declares a kind of identifier */
  'post /identifier-kinds': { body: { name: string; label: string; role: ("business" | "link" | "shared"); patterns?: string[]; inText?: string[]; fields?: string[]; normal?: { case?: ("keep" | "lower" | "upper"); separators?: ("keep" | "drop"); leadingZeros?: ("keep" | "drop"); phone?: boolean; }; scope?: ("global" | "host" | "process" | "session"); leaseMs?: (number | null); supplied?: boolean; discovered?: unknown; environments?: unknown; guarded?: unknown; trusted?: unknown; once?: boolean; } };
  /** Brings files in: multipart, each file with its relative path as its name */
  'post /imports': { query?: { environment?: string; zone?: string; stated?: boolean; demo?: boolean; }; multipart: true };
  /** Keeps for findings that are alike whether this was the cause, how it was mended, and who owns it */
  'post /known-causes': { body: { signature: string; was: boolean; remedy: string; owner: string; strand: string; } };
  /** Declares a package or folder, with all below it, to be the program’s own; its calls are shown in stack traces */
  'post /own-packages': { body: { prefix: string; } };
  /** Keeps a runbook of one’s own */
  'post /runbooks': { body: { name: string; title: string; about: string; blanks: { name: string; label: string; kind: ("text" | "choice"); values: ((string[] | { field: string; }) | null); usual: string; }[]; steps: { name: string; title: string; look: ({ what: "records"; q: string; by: string; } | ({ what: "strands"; identifier: string; flow: string; outcome: string; failedIn: string; component: string; by: ("none" | "finding" | "failedIn" | "flow" | "party" | "caused-by"); among: string; } | { what: "changes"; component: string; })); around: ({ step: string; at: ("first" | "each"); before: string; after: string; } | null); found: string; nothing: string; }[]; finding: { when: string; has: ("found" | "nothing"); text: string; }[]; } };
  /** Runs one step of a runbook, given what the steps before it came to */
  'post /runbooks/run': { body: { runbook: { name: string; title: string; about: string; blanks: { name: string; label: string; kind: ("text" | "choice"); values: ((string[] | { field: string; }) | null); usual: string; }[]; steps: { name: string; title: string; look: ({ what: "records"; q: string; by: string; } | ({ what: "strands"; identifier: string; flow: string; outcome: string; failedIn: string; component: string; by: ("none" | "finding" | "failedIn" | "flow" | "party" | "caused-by"); among: string; } | { what: "changes"; component: string; })); around: ({ step: string; at: ("first" | "each"); before: string; after: string; } | null); found: string; nothing: string; }[]; finding: { when: string; has: ("found" | "nothing"); text: string; }[]; }; step: string; blanks: { [k: string]: string; }; from: string; to: string; environment?: string; earlier: { [k: string]: { count: number; partial: boolean; first: (string | null); last: (string | null); times: string[]; values: { value: string; count: number; }[]; strands: string[]; sentences: { value: string; count: number; }[]; }; }; } };
  /** Saves a search or a column set */
  'post /saved': { body: { what: ("search" | "columns" | "strand-columns"); name: string; shared?: boolean; body: unknown; } };
  /** Many identifiers at once: what each is, and the strand that it leads to */
  'post /search/list': { body: { text: string; components?: boolean; } };
  /** Registers the source texts of a version: multipart, each file with its relative path as its name; what was registered for it before is replaced */
  'post /source-texts': { query: { component: string; version: string; }; multipart: true };
  /** Where in registered source texts the calls of a trace stand, and the line that wrote a message */
  'post /source-texts/places': { body: { component: string; host: string; environment: string; at: string; logger: string; message: string; frames: { code: string; unit: string; file: (string | null); line: (number | null); }[]; } };
  /** Reads what failed or was not read to its end again */
  'post /sources/{id}/again': { params: { id: number; } };
  /** What would come of a layout of times; nothing is changed */
  'post /sources/{id}/time-layout': { params: { id: number; }; body: { timeLayout: (string | null); zone?: string; } };
  /** Tries again what failed or was cancelled */
  'post /work/{id}/again': { params: { id: number; } };
  /** Declares or changes a flow */
  'put /flows/{name}': { params: { name: string; }; body: { name: string; label: string; kind: string; prefix?: string; patienceMs?: (number | null); expects?: { field: string; words: string; min: number; max?: (number | null); }[]; must?: { component?: (string | null); words: string; withinMs?: (number | null); }[]; path?: string[]; longestMs?: (number | null); schedule?: ({ cron: string; zone: string; lateMs?: (number | null); } | null); } };
  /** Sets by hand how far a clock is ahead, or lets what was found hold again (null); what it wrote is read again */
  'put /hosts/{id}': { params: { id: number; }; body: { aheadMs: (number | null); } };
  /** Changes a kind of identifier */
  'put /identifier-kinds/{name}': { params: { name: string; }; body: { name: string; label: string; role: ("business" | "link" | "shared"); patterns?: string[]; inText?: string[]; fields?: string[]; normal?: { case?: ("keep" | "lower" | "upper"); separators?: ("keep" | "drop"); leadingZeros?: ("keep" | "drop"); phone?: boolean; }; scope?: ("global" | "host" | "process" | "session"); leaseMs?: (number | null); supplied?: boolean; discovered?: unknown; environments?: unknown; guarded?: unknown; trusted?: unknown; once?: boolean; } };
  /** Replaces all declared meanings */
  'put /meanings': { body: { items: { component?: (string | null); contains: string; means: ("done" | "ends" | "failed" | "refused" | "entry" | "harmless"); }[]; } };
  /** Makes or changes a quiet rule; supplied ones can be turned on and off */
  'put /quiet-rules/{name}': { params: { name: string; }; body: { name: string; label: string; why?: string; q: string; on?: boolean; } };
  /** Says of a departure that it is in hand, or tolerated until an instant; null takes that back. It comes back when it gets worse. */
  'put /rounds/departures/noted': { body: { key: string; state: (("in-hand" | "tolerated") | null); note?: string; until?: (string | null); count: number; of: (number | null); expected: (number | null); } };
  /** Puts a flow into a group, beside the others of it; an empty name takes it out again */
  'put /rounds/groups': { body: { flow: string; group: string; } };
  /** Changes a runbook of one’s own */
  'put /runbooks/{id}': { params: { id: number; }; body: { name: string; title: string; about: string; blanks: { name: string; label: string; kind: ("text" | "choice"); values: ((string[] | { field: string; }) | null); usual: string; }[]; steps: { name: string; title: string; look: ({ what: "records"; q: string; by: string; } | ({ what: "strands"; identifier: string; flow: string; outcome: string; failedIn: string; component: string; by: ("none" | "finding" | "failedIn" | "flow" | "party" | "caused-by"); among: string; } | { what: "changes"; component: string; })); around: ({ step: string; at: ("first" | "each"); before: string; after: string; } | null); found: string; nothing: string; }[]; finding: { when: string; has: ("found" | "nothing"); text: string; }[]; } };
  /** Renames or changes what was saved */
  'put /saved/{id}': { params: { id: number; }; body: { what: ("search" | "columns" | "strand-columns"); name: string; shared?: boolean; body: unknown; } };
  /** Says that what fits a text with ‹› in it is one shape, or that it stands apart; null takes it back */
  'put /shapes/hand': { body: { component: string; text: string; is: (("one" | "apart") | null); } };
  /** Gives a parameter of a shape a name, under which it is a field of searches; an empty name takes it away */
  'put /shapes/parameters': { body: { component: string; text: string; place: number; name: string; } };
  /** Says why it is tolerated that a shape is new, surging, fading or gone: it is left out until it is something else; null takes it back */
  'put /shapes/said': { body: { component: string; text: string; kind: ("new" | "surging" | "fading" | "gone"); note: (string | null); } };
  /** Changes how several sources are read, all of them or none; they are read again from their kept bytes */
  'put /sources': { body: { ids: number[]; format?: ("journal-export" | "container-lines" | "postgresql-csvlog" | "postgresql-jsonlog" | "postgresql-stderr" | "otlp-json" | "json-lines" | "json-documents" | "xes" | "xml-events" | "w3c-extended" | "access-log" | "syslog" | "labelled-tabs" | "logfmt" | "table" | "slow-statements" | "sip-trace" | "http-wire" | "text" | "plain"); dateOrder?: ("day-first" | "month-first" | "year-first"); zone?: string; timeLayout?: (string | null); standsAt?: ("begin" | "end"); snapshots?: boolean; apart?: boolean; component?: string; host?: string; environment?: string; } };
  /** Changes how a source is read; it is read again from its kept bytes */
  'put /sources/{id}': { params: { id: number; }; body: { format?: ("journal-export" | "container-lines" | "postgresql-csvlog" | "postgresql-jsonlog" | "postgresql-stderr" | "otlp-json" | "json-lines" | "json-documents" | "xes" | "xml-events" | "w3c-extended" | "access-log" | "syslog" | "labelled-tabs" | "logfmt" | "table" | "slow-statements" | "sip-trace" | "http-wire" | "text" | "plain"); dateOrder?: ("day-first" | "month-first" | "year-first"); zone?: string; timeLayout?: (string | null); standsAt?: ("begin" | "end"); snapshots?: boolean; apart?: boolean; component?: string; host?: string; environment?: string; } };
  /** Says how much weighs what a search finds, or changes it */
  'put /weights/{name}': { params: { name: string; }; body: { name: string; label: string; q: string; weight: ("slight" | "notable" | "serious" | "grave"); } };
}
/** What each call answers: a value, or nothing, or what is no value (a file, events). */
export interface Answers {
  'delete /changes/{id}': undefined;
  'delete /demo': Page<ImportInfo>;
  'delete /explanations/{id}': undefined;
  'delete /faults/{id}/hand': undefined;
  'delete /faults/{id}/said': undefined;
  'delete /flows/{name}': undefined;
  'delete /follows/{id}': undefined;
  'delete /identifier-kinds/{name}': ReadAgain;
  'delete /imports/{id}': undefined;
  'delete /known-causes/{id}': undefined;
  'delete /own-packages': undefined;
  'delete /quiet-rules/{name}': undefined;
  'delete /runbooks/{id}': undefined;
  'delete /saved/{id}': undefined;
  'delete /source-texts/{id}': undefined;
  'delete /weights/{name}': undefined;
  'delete /work/{id}': WorkInfo;
  'get /against': Against;
  'get /calls': CallPage;
  'get /calls/counts': CallCounts;
  'get /changes': Page<Change>;
  'get /changes/states': Page<KnownState>;
  'get /coverage': Coverage;
  'get /data-sets': Page<DataSet>;
  'get /data-sets/one': DataSetHistory;
  'get /explanations': Page<KeptCode>;
  'get /faults': Faults;
  'get /faults/{id}': FaultDetail;
  'get /faults/{id}/parts': FaultParting;
  'get /flows': Page<Flow>;
  'get /flows/{name}/usual': FlowUsual;
  'get /follows': Page<FollowInfo>;
  'get /health': Health;
  'get /hosts': Page<HostClock>;
  'get /identifier-kinds': Page<IdentifierKind>;
  'get /identifier-kinds/suggestions': KindSuggestions;
  'get /imports': Page<ImportInfo>;
  'get /imports/{id}': ImportInfo;
  'get /jobs': Jobs;
  'get /jobs/runs': Page<JobRuns>;
  'get /live': undefined;
  'get /live/strands': undefined;
  'get /live/strands/{id}': undefined;
  'get /meanings': Page<Meaning>;
  'get /own-packages': Page<OwnPackage>;
  'get /quiet-rules': Page<QuietRuleInfo>;
  'get /records': FoundPage;
  'get /records/against': Contrasted;
  'get /records/export': undefined;
  'get /records/fields': Page<string>;
  'get /records/groups': GroupsPart;
  'get /records/ranked': RankedPart;
  'get /records/tally': TimelinePart;
  'get /records/timeline': Timeline;
  'get /records/values': Page<FieldValues>;
  'get /records/{id}': RecordInFull;
  'get /records/{id}/around': Page<LogRecord>;
  'get /rounds': Rounds;
  'get /rounds/departures': Departures;
  'get /rounds/instant': Instant;
  'get /rounds/since': SinceThen;
  'get /runbooks': Page<RunbookInfo<Runbook>>;
  'get /saved': Page<Saved>;
  'get /search': SearchAnswer;
  'get /shapes/different': DifferentShapes;
  'get /shapes/one': ShapeDetail;
  'get /source-texts': Page<SourceText>;
  'get /source-texts/{id}/lines': TextLines;
  'get /sources': Page<SourceInfo>;
  'get /sources/{id}': SourceInfo;
  'get /sources/{id}/kept-whole': KeptWhole;
  'get /sources/{id}/original': OriginalLines;
  'get /sources/{id}/parts': Page<SourceInfo>;
  'get /sources/{id}/slice': undefined;
  'get /strands': Page<StrandSummary>;
  'get /strands/counts': StrandCounts;
  'get /strands/export': undefined;
  'get /strands/groups': Page<StrandGroup>;
  'get /strands/in-common': InCommon;
  'get /strands/{id}': Strand;
  'get /strands/{id}/against': AgainstStrand | undefined;
  'get /strands/{id}/against-usual': AgainstUsual | undefined;
  'get /strands/{id}/call': Call | undefined;
  'get /strands/{id}/data': Page<StrandData>;
  'get /strands/{id}/records': Page<StrandLine>;
  'get /strands/{id}/series': StrandSeries | undefined;
  'get /strands/{id}/story': Page<StoryChapter>;
  'get /summary': Summary;
  'get /unusual/export': undefined;
  'get /weights': Page<WeightRuleInfo>;
  'get /work': Page<WorkInfo>;
  'get /work/{id}': WorkInfo;
  'post /changes': Change;
  'post /demo': { loading: true };
  'post /explanations': Page<KeptCode>;
  'post /faults/{id}/parts': { id: number };
  'post /faults/{id}/said': undefined;
  'post /faults/{id}/together': undefined;
  'post /follows': FollowInfo;
  'post /identifier-kinds': IdentifierKind & ReadAgain;
  'post /imports': ImportInfo;
  'post /known-causes': KnownCause;
  'post /own-packages': Page<OwnPackage>;
  'post /runbooks': RunbookInfo<Runbook>;
  'post /runbooks/run': StepResult<StepSum>;
  'post /saved': Saved;
  'post /search/list': ListedAnswer;
  'post /source-texts': SourceText;
  'post /source-texts/places': WrittenPlaces;
  'post /sources/{id}/again': SourceInfo;
  'post /sources/{id}/time-layout': LayoutTrialInfo;
  'post /work/{id}/again': WorkInfo;
  'put /flows/{name}': FlowDeclaration;
  'put /hosts/{id}': HostClock;
  'put /identifier-kinds/{name}': IdentifierKind & ReadAgain;
  'put /meanings': MeaningsSaved;
  'put /quiet-rules/{name}': QuietRuleBody;
  'put /rounds/departures/noted': undefined;
  'put /rounds/groups': undefined;
  'put /runbooks/{id}': RunbookInfo<Runbook>;
  'put /saved/{id}': Saved;
  'put /shapes/hand': undefined;
  'put /shapes/parameters': undefined;
  'put /shapes/said': undefined;
  'put /sources': Page<SourceInfo>;
  'put /sources/{id}': SourceInfo;
  'put /weights/{name}': WeightRuleBody;
}
