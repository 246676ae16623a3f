import type { Random } from '../writing/random.ts';

/** What a program says, by what it does. `$1`, `$2` are filled in. */
export type Act =
  | 'receive' | 'begin' | 'check' | 'found' | 'call' | 'answer' | 'store' | 'hand' | 'take' | 'finish' | 'born' | 'wait' | 'again' | 'giveUp' | 'noAnswer' | 'fail'
  | 'refuse' | 'poll' | 'dead' | 'crash' | 'start' | 'ready' | 'setting' | 'beat' | 'cache' | 'pool' | 'rows' | 'asked'; // prettier-ignore
export const ACTS: readonly Act[] = ['receive', 'begin', 'check', 'found', 'call', 'answer', 'store', 'hand', 'take', 'finish', 'born', 'wait', 'again', 'giveUp', 'noAnswer', 'fail', 'refuse', 'poll', 'dead', 'crash', 'start', 'ready', 'setting', 'beat', 'cache', 'pool', 'rows', 'asked']; // prettier-ignore

type Phrases = Record<Act, readonly string[]>;

const ENGLISH: Phrases = {
  receive: ['$1 received', 'incoming $1', 'got $1 to work on'],
  begin: ['begin of $1', 'working on $1', '$1 taken up'],
  check: ['checking $1', 'looking at $1', '$1 under examination'],
  found: ['$2 entries of $1', '$1: $2 found', 'read $2 of $1'],
  call: ['asking $1', 'request to $1', 'over to $1'],
  answer: ['answer of $1 after $2 ms', '$1 answered in $2 ms', 'back from $1 ($2 ms)'],
  store: ['$1 kept', 'wrote $1', '$1 put into the store'],
  hand: ['$1 put into $2', 'handed $1 on to $2', '$2: one more $1'],
  take: ['$1 taken out of $2', 'next of $2: $1', '$1 comes from $2'],
  finish: ['$1 is through in $2 ms', 'end of $1 after $2 ms', '$1 complete, $2 ms'],
  born: ['new $1 opened', '$1 assigned', 'made a $1'],
  wait: ['waiting for $1', '$1 is taken, waiting', 'in line for $1'],
  again: ['trying $1 again', 'another try at $1 ($2)', '$1: once more'],
  giveUp: ['giving up on $1 after $2 tries', '$1 given up ($2 tries)', 'no more tries at $1, $2 were enough'],
  noAnswer: ['no answer of $1 within $2 ms', '$1 silent for $2 ms', 'timeout at $1, $2 ms'],
  fail: ['$1 failed: $2', 'could not do $1: $2', 'error in $1: $2'],
  refuse: ['$1 turned down: $2', '$1 not accepted: $2', 'rejected $1: $2'],
  poll: ['$1 not there yet', 'still nothing of $1', 'asked for $1, not ready'],
  dead: ['$1 set aside in $2', '$1 moved to $2, it cannot be worked on', 'parked $1 in $2'],
  crash: ['process $1 ended by signal 11', '$1 killed, core dumped', 'main process of $1 exited, status=11/SEGV'],
  start: ['starting $1 version $2', '$1 $2 comes up', 'boot of $1, version $2'],
  ready: ['ready for work', 'all doors open', 'up and listening'],
  setting: ['setting $1 changed to $2', '$1 is $2 from now on', 'configuration: $1=$2'],
  beat: ['alive, $1 under way', 'pulse: $1', '$1 jobs in hand'],
  cache: ['kept entries renewed: $1', 'dropped $1 old entries', 'refresh done, $1 entries'],
  pool: ['$1 of $2 connections in use', 'pool: $1/$2', 'connections $1, limit $2'],
  rows: ['$1 rows in, $2 rows out', 'copied $2 of $1 rows', 'rows read $1, written $2'],
  asked: ['state of $1 asked for', 'looking up $1', 'query about $1'],
};
const GERMAN: Phrases = {
  receive: ['$1 eingegangen', 'Eingang: $1'],
  begin: ['Beginn $1', '$1 wird bearbeitet'],
  check: ['prüfe $1', '$1 in Prüfung'],
  found: ['$2 Einträge zu $1', '$1: $2 gelesen'],
  call: ['Anfrage an $1', 'frage $1'],
  answer: ['Antwort von $1 nach $2 ms', '$1 hat in $2 ms geantwortet'],
  store: ['$1 abgelegt', '$1 geschrieben'],
  hand: ['$1 in $2 gestellt', 'weiter an $2: $1'],
  take: ['$1 aus $2 geholt', 'nächster Auftrag aus $2: $1'],
  finish: ['$1 fertig nach $2 ms', 'Ende $1, $2 ms'],
  born: ['$1 vergeben', 'neu angelegt: $1'],
  wait: ['warte auf $1', '$1 belegt, warte'],
  again: ['neuer Versuch: $1', '$1 wird wiederholt ($2)'],
  giveUp: ['$1 nach $2 Versuchen aufgegeben', 'Abbruch $1, Versuche: $2'],
  noAnswer: ['keine Antwort von $1 in $2 ms', 'Zeit abgelaufen bei $1 ($2 ms)'],
  fail: ['$1 fehlgeschlagen: $2', 'Fehler bei $1: $2'],
  refuse: ['$1 abgelehnt: $2', '$1 nicht zulässig: $2'],
  poll: ['$1 noch nicht da', 'noch kein Ergebnis für $1'],
  dead: ['$1 nach $2 ausgesondert', '$1 unbearbeitbar, liegt in $2'],
  crash: ['Prozess $1 durch Signal 11 beendet', '$1 abgestürzt'],
  start: ['$1 Version $2 startet', 'Start von $1 $2'],
  ready: ['betriebsbereit', 'bereit'],
  setting: ['Einstellung $1 jetzt $2', '$1 geändert auf $2'],
  beat: ['läuft, $1 in Arbeit', 'Lebenszeichen $1'],
  cache: ['$1 Einträge erneuert', '$1 alte Einträge verworfen'],
  pool: ['$1 von $2 Verbindungen belegt', 'Verbindungen: $1/$2'],
  rows: ['$1 Zeilen gelesen, $2 geschrieben', 'Zeilen: $1 rein, $2 raus'],
  asked: ['Stand von $1 erfragt', 'Auskunft zu $1'],
};
const FRENCH: Phrases = {
  receive: ['$1 reçu', 'arrivée de $1'],
  begin: ['début de $1', 'traitement de $1'],
  check: ['vérification de $1', 'contrôle $1'],
  found: ['$2 entrées pour $1', '$1 : $2 trouvées'],
  call: ['appel de $1', 'demande à $1'],
  answer: ['réponse de $1 en $2 ms', '$1 a répondu ($2 ms)'],
  store: ['$1 enregistré', '$1 rangé'],
  hand: ['$1 déposé dans $2', 'remis à $2 : $1'],
  take: ['$1 pris dans $2', 'suivant de $2 : $1'],
  finish: ['$1 terminé en $2 ms', 'fin de $1 après $2 ms'],
  born: ['$1 attribué', 'nouveau $1'],
  wait: ['attente de $1', '$1 occupé, on attend'],
  again: ['nouvel essai de $1', '$1 encore une fois ($2)'],
  giveUp: ['$1 abandonné après $2 essais', 'on renonce à $1 ($2)'],
  noAnswer: ['pas de réponse de $1 en $2 ms', 'délai dépassé chez $1 ($2 ms)'],
  fail: ['échec de $1 : $2', 'erreur dans $1 : $2'],
  refuse: ['$1 refusé : $2', '$1 non admis : $2'],
  poll: ['$1 pas encore là', 'toujours rien de $1'],
  dead: ['$1 écarté dans $2', '$1 mis de côté, $2'],
  crash: ['processus $1 tué par le signal 11', '$1 est tombé'],
  start: ['démarrage de $1 version $2', '$1 $2 se lance'],
  ready: ['prêt', 'en service'],
  setting: ['réglage $1 passé à $2', '$1 vaut désormais $2'],
  beat: ['en vie, $1 en cours', 'pouls $1'],
  cache: ['$1 entrées renouvelées', '$1 vieilles entrées jetées'],
  pool: ['$1 connexions sur $2', 'connexions : $1/$2'],
  rows: ['$1 lignes lues, $2 écrites', 'lignes $1 → $2'],
  asked: ['état de $1 demandé', 'consultation de $1'],
};
const SPANISH: Phrases = {
  receive: ['$1 recibido', 'entrada de $1'],
  begin: ['comienzo de $1', 'se trabaja en $1'],
  check: ['revisando $1', 'comprobación de $1'],
  found: ['$2 registros de $1', '$1: leídos $2'],
  call: ['consulta a $1', 'pregunta a $1'],
  answer: ['respuesta de $1 en $2 ms', '$1 contestó ($2 ms)'],
  store: ['$1 guardado', '$1 escrito'],
  hand: ['$1 puesto en $2', 'pasa a $2: $1'],
  take: ['$1 sacado de $2', 'siguiente de $2: $1'],
  finish: ['$1 acabado en $2 ms', 'fin de $1 tras $2 ms'],
  born: ['$1 asignado', 'nuevo $1 abierto'],
  wait: ['esperando $1', '$1 ocupado, a la espera'],
  again: ['otra vez $1', 'nuevo intento de $1 ($2)'],
  giveUp: ['se abandona $1 tras $2 intentos', 'no más intentos de $1 ($2)'],
  noAnswer: ['sin respuesta de $1 en $2 ms', 'plazo vencido con $1 ($2 ms)'],
  fail: ['falló $1: $2', 'error en $1: $2'],
  refuse: ['$1 rechazado: $2', '$1 no admitido: $2'],
  poll: ['$1 aún no está', 'todavía nada de $1'],
  dead: ['$1 apartado en $2', '$1 queda en $2'],
  crash: ['proceso $1 muerto por señal 11', '$1 caído'],
  start: ['arranca $1 versión $2', 'inicio de $1 $2'],
  ready: ['listo', 'en marcha'],
  setting: ['ajuste $1 cambiado a $2', '$1 es ahora $2'],
  beat: ['vivo, $1 en curso', 'pulso $1'],
  cache: ['renovadas $1 entradas', '$1 entradas viejas fuera'],
  pool: ['$1 de $2 conexiones en uso', 'conexiones: $1/$2'],
  rows: ['$1 filas leídas, $2 escritas', 'filas $1, $2'],
  asked: ['estado de $1 consultado', 'búsqueda de $1'],
};

const SYLLABLES = [
  'ba',
  'kel',
  'mi',
  'tor',
  'su',
  'ven',
  'ra',
  'dol',
  'pi',
  'nas',
  'eku',
  'zo',
  'lim',
  'gat',
  'wer',
  'fo',
  'jun',
  'sha',
  'ip',
  'tul',
];
/** A word that no language has. */
export function inventedWord(random: Random, parts = random.whole(2, 3)): string {
  let word = '';
  for (let i = 0; i < parts; i++) word += random.pick(SYLLABLES);
  return word;
}
/** A language that nobody speaks: each word of another one is always the same word of it. */
function invented(random: Random, from: Phrases): Phrases {
  const known = new Map<string, string>();
  const word = (of: string): string => {
    // a unit is no word
    if (of === 'ms') return of;
    const lower = of.toLowerCase();
    if (!known.has(lower)) known.set(lower, inventedWord(random));
    return known.get(lower)!;
  };
  return Object.fromEntries(ACTS.map((act) => [act, from[act].map((phrase) => phrase.replace(/(?<![$\p{L}])\p{L}+/gu, word))])) as unknown as Phrases;
}

export const LANGUAGES = ['English', 'German', 'French', 'Spanish', 'invented', 'invented too'] as const;
export type Language = (typeof LANGUAGES)[number];
export function phrasesOf(language: Language, random: Random): Phrases {
  switch (language) {
    case 'English':
      return ENGLISH;
    case 'German':
      return GERMAN;
    case 'French':
      return FRENCH;
    case 'Spanish':
      return SPANISH;
    default:
      return invented(random.fork(language), language === 'invented' ? ENGLISH : GERMAN);
  }
}
export const filled = (phrase: string, ...values: (string | number)[]): string =>
  phrase.replace(/\$(\d)/g, (_, n: string) => String(values[Number(n) - 1] ?? ''));
