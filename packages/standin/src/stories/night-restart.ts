import { MESSAGES, messagesLine, SYSLOG, syslogLine } from '../components/hosts.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { MINUTE, SECOND, type Micros } from '../writing/times.ts';
import type { Line, Story } from './story.ts';

/** 12. At 05:31 the host app-2 goes down and comes back six minutes later; the reason stands a few lines before in the log of job-1. */
export const nightRestart = (day: Micros): Story => {
  const [from, to] = [day + 331 * MINUTE, day + 337 * MINUTE];
  const old = (at: Micros, program: string, pid: number, message: string): Line => ({ at, path: MESSAGES, text: messagesLine(at, 'job-1', program, pid, message) }); // prettier-ignore
  const own = (at: Micros, program: string, message: string): Line => ({ at, path: SYSLOG, text: syslogLine(at, 'app-2', program, 1, 6, message) });
  const desk = (at: Micros, message: string): Line => ({ at, path: ORDER_DESK, text: orderDeskLine(at, 'INFO', 'main', 'o.b.Main', message) });
  return {
    number: 12,
    title: 'a host restarts in the night, the reason stands in another host’s log',
    away: (at) => (at >= from && at < to ? to : null),
    lines: [
      old(from - 41 * SECOND, 'upsmon', 412, 'supply rack-2 on battery'),
      old(from - 12 * SECOND, 'upsmon', 412, 'supply rack-2 battery low, asking app-2 to shut down'),
      own(from + 290 * SECOND, 'kernel', 'Linux version 6.1.0 booting'),
      own(from + 296 * SECOND, 'systemd', 'Started order-desk.service'),
      old(from + 260 * SECOND, 'upsmon', 412, 'supply rack-2 on mains'),
      desk(to, 'order-desk 7.3.1 started, 41 routes'),
    ],
  };
};
