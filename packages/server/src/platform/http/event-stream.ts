import type { Request, Response } from 'express';

/** How often a stream that says nothing shows that it lives, in milliseconds. */
const HEARTBEAT = 15_000;

/** An answer that goes on: server-sent events, as the HTML standard describes them. */
export class EventStream {
  private readonly heartbeat: NodeJS.Timeout;
  open = true;
  /** The reader has taken what was sent, or is gone. */
  private goOn: (() => void) | null = null;

  constructor(
    request: Request,
    private readonly response: Response,
  ) {
    response.status(200).set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    response.write('retry: 1000\n\n');
    this.heartbeat = setInterval(() => response.write(': \n\n'), HEARTBEAT);
    request.on('close', () => this.end());
    response.on('error', () => this.end());
    response.on('drain', () => this.goOn?.());
  }

  /** Waits where the reader is slow, so that nothing piles up. */
  async send(event: string, data: unknown, id?: string): Promise<void> {
    if (!this.open) return;
    const room = this.response.write(`event: ${event}\n${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(data)}\n\n`);
    if (!room && this.open) await new Promise<void>((resolve) => (this.goOn = resolve));
  }
  private end(): void {
    this.open = false;
    clearInterval(this.heartbeat);
    this.goOn?.();
    this.onEnd?.();
  }
  onEnd: (() => void) | null = null;
}
