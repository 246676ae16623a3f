/** A file of a program. */
export interface TextFile {
  /** Below the folder of its version. */
  path: string;
  body: string;
}
export const LENS_CALC_VERSIONS = ['4.11.0', '4.12.0'] as const;
export type LensCalcVersion = (typeof LENS_CALC_VERSIONS)[number];

const isNew = (version: LensCalcVersion): boolean => version === '4.12.0';

const worker = (): string => `package calc;

/** Takes one message after the other and has its surface computed. */
final class Worker implements Runnable {
  private final Inbox inbox;
  private final Surface surface;

  Worker(Inbox inbox, Surface surface) {
    this.inbox = inbox;
    this.surface = surface;
  }

  @Override
  public void run() {
    for (Message message = inbox.take(); message != null; message = inbox.take()) {
      surface.compute(message);
    }
  }
}
`;

const surface = (): string => `package calc;

import calc.grid.Rings;

/** Computes the surface of a lens from its prescription: a grid of rings, refined until nothing changes any more. */
final class Surface {
  private static final Logger log = Logger.of("calc.Surface");
  private static final double SMOOTH = 0.001;

  private final FrameGate frames;
  private final Outbox outbox;

  Surface(FrameGate frames, Outbox outbox) {
    this.frames = frames;
    this.outbox = outbox;
  }

  void compute(Message message) {
    Prescription lens = message.prescription();
    if (lens.prism() > 0) {
      log.info("message {}: surface of {}, material {}, prism {}", message.id(), lens.order(), lens.material(), lens.prism());
    } else {
      log.info("message {}: surface of {}, material {}", message.id(), lens.order(), lens.material());
    }
    if (frames.shapeOf(lens.frame()) == null) {
      log.info("surface of {} waits for the shape of frame {}", lens.order(), lens.frame());
      return;
    }
    long start = System.nanoTime();
    try {
      Rings rings = refine(new Rings(lens.diameter()), lens);
      String job = outbox.put(lens.order(), rings);
      log.info("surface of {} computed, {} points, took {} ms, job {}", lens.order(), rings.points(), since(start), job);
    } catch (RuntimeException thrown) {
      log.error("surface of " + lens.order() + " failed", thrown);
      message.refuse("CALCULATION");
    }
  }

  private Rings refine(Rings rings, Prescription lens) {
    if (lens.prism() > 0) {
      rings = rings.shift(lens.prism(), lens.base());
    }
    for (double residual = rings.residual(lens); residual > SMOOTH; residual = rings.residual(lens)) {
      rings = rings.finer();
      log.debug("grid refined, residual {}", residual);
    }
    return rings;
  }

  private static long since(long start) {
    return (System.nanoTime() - start) / 1_000_000;
  }
}
`;

const rings = (version: LensCalcVersion): string => `package calc.grid;
${isNew(version) ? '\nimport calc.PrismOffGridException;\n' : ''}
/** The grid on which a surface is computed: rings around the middle, each with its points. */
public final class Rings {
  private static final int COUNT = 48;
  /** How far the grid reaches beyond the lens, in millimetres. */
  private static final double MARGIN = ${isNew(version) ? '1.5' : '4.0'};

  private final double[] radius = new double[COUNT];
  private final double edge;

  public Rings(double diameter) {
    edge = diameter / 2 + MARGIN;
    for (int ring = 0; ring < COUNT; ring++) {
      radius[ring] = edge * (ring + 1) / COUNT;
    }
  }

  /** Moves the middle of all rings by a prism towards its base. */
  public Rings shift(double prism, double base) {
    double off = prism * Math.cos(base) + prism;
    for (int ring = 0; ring < COUNT; ring++) {
      if (radius[ring] + off > edge) {
${
  isNew(version)
    ? `        // a ring beyond the edge made waves at the rim: it is refused now instead of being cut
        throw new PrismOffGridException(prism, ring);`
    : '        radius[ring] = edge - off;'
}
      }
    }
    return this;
  }
}
`;

const exception = (): string => `package calc;

/** A prism moves a ring beyond the edge of the grid. */
public final class PrismOffGridException extends RuntimeException {
  public PrismOffGridException(double prism, int ring) {
    super(String.format("prism %.2f leaves the grid at ring %d", prism, ring));
  }
}
`;

/** The source text of lens-calc, as far as it writes what its log shows; 4.12.0 refuses what 4.11.0 cut. */
export function lensCalcText(version: LensCalcVersion): TextFile[] {
  const files = [
    { path: 'calc/Worker.java', body: worker() },
    { path: 'calc/Surface.java', body: surface() },
    { path: 'calc/grid/Rings.java', body: rings(version) },
  ];
  return isNew(version) ? [...files, { path: 'calc/PrismOffGridException.java', body: exception() }] : files;
}

/** The line of a file that holds some words, from 1. */
export function lineWith(version: LensCalcVersion, path: string, words: string): number {
  const { body } = lensCalcText(version).find((file) => file.path === path)!;
  return body.slice(0, body.indexOf(words)).split('\n').length;
}
