import { table } from './types.ts';

/** POSIX error numbers by name; numbers as on Linux. */
export const ERRNO = table({
  EPERM: 'operation not permitted (1) | the process may not do that | a missing right, a read-only file system',
  ENOENT:
    'no such file or directory (2) | the path does not exist | a wrong path, a file that was moved or not written yet | who should have written it, and when',
  EINTR: 'interrupted (4) | a signal broke the call off; mostly it is done again',
  EIO: 'input/output error (5) | the device cannot read or write | a failing disk or mount | the kernel’s log',
  EBADF: 'bad file descriptor (9) | the file or connection was closed already',
  EAGAIN: 'try again (11) | nothing there now; or no more threads or memory may be had | a limit of processes or memory',
  ENOMEM: 'out of memory (12) | there is no memory left | a leak, a limit that is too low | memory of the host and of the process over time',
  EACCES: 'permission denied (13) | the file’s rights do not allow it | another owner after a deployment | owner and rights of the path',
  EBUSY: 'busy (16) | something else uses it',
  EEXIST: 'exists already (17) | it is there before it is made | a second start, a leftover',
  ENOTDIR: 'not a directory (20) | a part of the path is a file',
  EISDIR: 'is a directory (21) | a file was expected',
  EINVAL: 'invalid argument (22) | a value that the call does not take',
  ENFILE: 'too many open files in the system (23) | the host’s limit is reached | a leak of files or connections',
  EMFILE:
    'too many open files (24) | the process’s limit is reached | connections or files that are never closed, a limit that is too low | open files of the process over time',
  EFBIG: 'file too large (27) | a limit of size is reached',
  ENOSPC: 'no space left (28) | the disk is full | logs or spool files that grow | the disk’s use over time, what grew last',
  EROFS: 'read-only file system (30) | the disk was mounted for reading alone | a failing disk | the kernel’s log',
  EPIPE: 'broken pipe (32) | the other side has closed the connection | a peer that restarted or gave up | what the other side did just before',
  ENAMETOOLONG: 'name too long (36) | the path is too long',
  EADDRINUSE: 'address in use (98) | another process listens there | an old process that still runs | who holds the port',
  EADDRNOTAVAIL: 'address not available (99) | the host has no such address, or no port is free | too many short connections',
  ENETDOWN: 'network is down (100) | the interface is off',
  ENETUNREACH: 'network unreachable (101) | there is no route | routing, a VPN that is down',
  ECONNABORTED: 'connection aborted (103) | given up before it was taken',
  ECONNRESET:
    'connection reset (104) | the other side cut the connection off | a crash or restart there, a firewall or proxy with a shorter time limit | what the other side did just before',
  ENOBUFS: 'no buffer space (105) | the network has no memory left',
  ETIMEDOUT: 'timed out (110) | no answer in time | a host that is down or overloaded, a firewall that drops | whether the other side ever saw it',
  ECONNREFUSED: 'connection refused (111) | nobody listens there | the service is down or restarting, a wrong port | restarts of the other side',
  EHOSTDOWN: 'host is down (112) | the host does not answer',
  EHOSTUNREACH: 'host unreachable (113) | no way to the host | the host or a router is down',
  EINPROGRESS: 'in progress (115) | the connection is still being made',
  ESTALE: 'stale file handle (116) | a network file system lost the file | a server that was restarted',
  EDQUOT: 'quota exceeded (122) | the user may not store more',
  ENOTFOUND: 'name not found | the name has no address | a wrong name, a name server that is down | the name server’s log',
});
export const ERRNO_NUMBERS: ReadonlyMap<string, string> = new Map([...ERRNO].flatMap(([name, { title }]) => { const hit = /\((\d+)\)$/.exec(title)?.[1]; return hit === undefined ? [] : [[hit, name] as const]; })); // prettier-ignore

/** Signals by name; numbers as on Linux. */
export const SIGNAL = table({
  SIGHUP: 'hang-up (1) | mostly: read the settings anew',
  SIGINT: 'interrupt (2) | somebody stopped it by hand',
  SIGQUIT: 'quit (3) | stop, or write down what the threads do',
  SIGILL: 'illegal instruction (4) | the program is broken or built for another processor',
  SIGTRAP: 'trap (5) | a debugger',
  SIGABRT: 'abort (6) | the program gave itself up | an assertion, damaged memory | the lines just before, a core file',
  SIGBUS: 'bus error (7) | memory that is not there | a file that shrank under a mapping, a full disk',
  SIGFPE: 'arithmetic error (8) | a division by zero',
  SIGKILL:
    'kill (9) | ended from outside without a chance to say why | the kernel when memory ran out, an orchestrator, a person | the kernel’s log, memory at that time, who ran what',
  SIGSEGV:
    'segmentation fault (11) | the program reached for memory that is not its own | a fault in native code | a core file, what was new in this version',
  SIGPIPE: 'broken pipe (13) | it wrote to a closed connection',
  SIGALRM: 'alarm (14) | a time limit ran out',
  SIGTERM: 'terminate (15) | it was asked to end | a deployment, a restart, an orchestrator | who asked: deployments, restarts',
  SIGSTOP: 'stop (19) | it was halted from outside',
  SIGXCPU: 'processor time (24) | a limit of processor time',
  SIGXFSZ: 'file size (25) | a limit of file size',
});
export const SIGNAL_NUMBERS: ReadonlyMap<string, string> = new Map([...SIGNAL].flatMap(([name, { title }]) => { const hit = /\((\d+)\)$/.exec(title)?.[1]; return hit === undefined ? [] : [[hit, name] as const]; })); // prettier-ignore

/** Exit codes by custom of the shell and sysexits. */
export const EXIT = table({
  0: 'success | it ended well by its own account',
  1: 'failure | it ended with a fault of its own | | its last lines',
  2: 'misuse | wrong options or arguments',
  64: 'usage | wrong options or arguments',
  65: 'data | the input is wrong',
  66: 'no input | the input is not there',
  69: 'unavailable | a service that it needs is not there',
  70: 'software | a fault of its own',
  73: 'cannot create | a file cannot be written',
  74: 'input/output | reading or writing failed',
  75: 'try again | a fault that passes',
  77: 'no permission | a right is missing',
  78: 'configuration | a setting is wrong',
  126: 'cannot run | the program is there and may not be run',
  127: 'not found | the program is not there | a wrong path, a missing package',
  130: 'interrupted | stopped by hand (signal 2)',
  134: 'aborted | it gave itself up (signal 6)',
  137: 'killed | ended from outside (signal 9) | memory that ran out, an orchestrator | the kernel’s log, memory at that time',
  139: 'segmentation fault | it reached for memory that is not its own (signal 11)',
  143: 'terminated | it was asked to end (signal 15) | a deployment, a restart',
});

/** RFC 5424. */
export const SEVERITY = table({
  0: 'emergency | the system cannot be used',
  1: 'alert | something has to be done at once',
  2: 'critical | a critical condition',
  3: 'error | an error',
  4: 'warning | a warning',
  5: 'notice | normal, but worth a look',
  6: 'informational | for information',
  7: 'debug | for developers',
});
export const FACILITY = table({
  0: 'kernel | messages of the kernel',
  1: 'user | programs of users',
  2: 'mail | the mail system',
  3: 'daemon | services',
  4: 'auth | sign-in and rights',
  5: 'syslog | the log service itself',
  9: 'clock | scheduled jobs',
  10: 'authpriv | sign-in, private',
  16: 'local0 | for own use',
  17: 'local1 | for own use',
  18: 'local2 | for own use',
  19: 'local3 | for own use',
  20: 'local4 | for own use',
  21: 'local5 | for own use',
  22: 'local6 | for own use',
  23: 'local7 | for own use',
});

/** RFC 8446, section 6, by name as libraries write it. */
export const TLS = table({
  close_notify: 'close notify (0) | the connection ended in order',
  unexpected_message: 'unexpected message (10) | one side broke the order of the handshake',
  bad_record_mac: 'bad record (20) | data were damaged or the keys differ',
  handshake_failure:
    'handshake failure (40) | the two cannot agree | no common cipher or version, a missing client certificate | versions and ciphers of both sides, changes to them',
  bad_certificate: 'bad certificate (42) | the certificate is malformed',
  unsupported_certificate: 'unsupported certificate (43) | its kind is not taken',
  certificate_revoked: 'certificate revoked (44) | its issuer took it back',
  certificate_expired:
    'certificate expired (45) | its time is over, or a clock is off | a renewal that was forgotten | the certificate’s end, the clocks of both hosts',
  certificate_unknown: 'certificate unknown (46) | it is not taken, and it is not said why',
  illegal_parameter: 'illegal parameter (47) | a value that does not fit the others',
  unknown_ca:
    'unknown issuer (48) | who issued the certificate is not trusted | a missing intermediate certificate, a new issuer | the chain that the server sends',
  access_denied: 'access denied (49) | the certificate is right, but may not',
  decode_error: 'decode error (50) | a message cannot be read',
  decrypt_error: 'decrypt error (51) | a signature is wrong',
  protocol_version:
    'protocol version (70) | the two have no version in common | an old client or a server that was hardened | versions of both sides',
  insufficient_security: 'insufficient security (71) | the ciphers are too weak for the other side',
  internal_error: 'internal error (80) | a fault of its own',
  user_canceled: 'canceled (90) | one side gave up',
  unrecognized_name: 'unrecognized name (112) | the server knows no such name | a wrong host name',
  certificate_required: 'certificate required (116) | the client has to show one',
});

/** gRPC status codes by name. */
export const GRPC = table({
  CANCELLED: 'cancelled (1) | the caller gave up | a caller’s time limit',
  UNKNOWN: 'unknown (2) | a fault that says nothing more | an exception on the other side',
  INVALID_ARGUMENT: 'invalid argument (3) | a value is wrong',
  DEADLINE_EXCEEDED: 'deadline exceeded (4) | not done in time | slow work, a lock, a network that drops | how long the work took on the other side',
  NOT_FOUND: 'not found (5) | there is no such thing',
  ALREADY_EXISTS: 'already exists (6) | it is there before it is made | a doubled message',
  PERMISSION_DENIED: 'permission denied (7) | the caller may not',
  RESOURCE_EXHAUSTED: 'resource exhausted (8) | a limit is reached | quotas, memory, message size',
  FAILED_PRECONDITION: 'failed precondition (9) | the state does not allow it',
  ABORTED: 'aborted (10) | two changes at once; mostly it is done again',
  OUT_OF_RANGE: 'out of range (11) | beyond what there is',
  UNIMPLEMENTED: 'unimplemented (12) | the other side does not know the call | another version on the other side',
  INTERNAL: 'internal (13) | a fault of its own',
  UNAVAILABLE:
    'unavailable (14) | the service cannot be reached now | a restart, no healthy server, a broken connection | restarts of the other side',
  DATA_LOSS: 'data loss (15) | data are lost or damaged',
  UNAUTHENTICATED: 'unauthenticated (16) | who asks has not shown who that is',
});

/** Classes of exceptions that many languages share, by the last part of their name. */
export const EXCEPTION = table({
  NullPointerException: 'a value that is not there was used | a case that the program does not foresee | the first own line of the stack',
  NullReferenceException: 'a value that is not there was used | a case that the program does not foresee | the first own line of the stack',
  OutOfMemoryError:
    'no memory left in the program | a leak, a very large piece of data, a limit that is too low | memory over time, what was being read',
  StackOverflowError: 'a call that calls itself without end | data that contain themselves',
  ConnectException: 'no connection | the other side is down or refuses | restarts of the other side',
  SocketTimeoutException: 'no answer in time | slow work or a lost packet | how long the other side took',
  TimeoutException: 'not done in time | slow work, a lock, a full pool | what was waited for',
  TimeoutError: 'not done in time | slow work, a lock, a full pool | what was waited for',
  UnknownHostException: 'a name without an address | a wrong name, a name server that is down',
  SSLHandshakeException: 'the two cannot agree on encryption | certificates, versions | the certificate’s end and chain',
  SQLException: 'the database refused | | SQLSTATE, the database’s log',
  SQLTransientConnectionException:
    'no connection to be had from the pool | all taken: slow statements, connections that are not given back | connections in use, the slowest statements',
  OptimisticLockException: 'somebody else changed it meanwhile | two changes at once',
  DeadlockLoserDataAccessException:
    'two waited for each other, this one was given up | locks in different order | the other one, in the database’s log',
  ClassNotFoundException: 'a part of the program is missing | an incomplete deployment',
  NoSuchMethodError: 'parts of different versions run together | an incomplete deployment',
  ConcurrentModificationException: 'a list was changed while it was gone through',
  IllegalArgumentException: 'a value that the called one does not take',
  IllegalStateException: 'called at the wrong time',
  NumberFormatException: 'a text that is no number | wrong input',
  JsonParseException: 'a text that is no JSON | another format or a cut-off body',
  SAXParseException: 'a text that is no XML | another format or a cut-off body',
  TypeError: 'a value of another kind than expected',
  KeyError: 'a key that is not there',
  ValueError: 'a value that is not taken',
  ConnectionResetError: 'the other side cut the connection off | a crash or restart there',
  BrokenPipeError: 'the other side has closed the connection',
  MemoryError: 'no memory left in the program',
});
