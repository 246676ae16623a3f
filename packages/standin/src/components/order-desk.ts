import { localText, type Micros } from '../writing/times.ts';

export const ORDER_DESK = 'order-desk/order-desk.log';
/** Text, local time with a comma before the milliseconds, no offset. */
export const orderDeskLine = (at: Micros, level: string, thread: string, logger: string, message: string): string =>
  `${localText(at, ' ', ',')} ${level.padEnd(5)} [${thread}] ${logger} - ${message}`;

/** A stack trace as the order desk's runtime prints it, with its cause. */
export function failedTrace(order: string, cause: string, state: string): string {
  const frames = [
    'example.brillmoor.orderdesk.steps.ReserveStep.run(ReserveStep.java:88)',
    'example.brillmoor.orderdesk.flow.StepRunner.lambda$run$0(StepRunner.java:54)',
    'example.brillmoor.orderdesk.flow.StepRunner.run(StepRunner.java:47)',
    'java.base/java.util.concurrent.ThreadPoolExecutor.runWorker(ThreadPoolExecutor.java:1136)',
    'java.base/java.util.concurrent.ThreadPoolExecutor$Worker.run(ThreadPoolExecutor.java:635)',
    'java.base/java.lang.Thread.run(Thread.java:840)',
  ];
  return [
    `example.brillmoor.orderdesk.OrderFailedException: order ${order} could not be reserved`,
    ...frames.map((frame) => `\tat ${frame}`),
    `Caused by: example.brillmoor.blankstore.client.ReserveException: ${cause} (SQLSTATE ${state})`,
    '\tat example.brillmoor.blankstore.client.BlankStoreClient.reserve(BlankStoreClient.java:131)',
    '\tat example.brillmoor.orderdesk.steps.ReserveStep.run(ReserveStep.java:81)',
    '\t... 5 more',
  ].join('\n');
}
