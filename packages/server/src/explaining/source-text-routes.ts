import Joi from 'joi';
import type { Page, SourceText, TextLines, Written, WrittenPlaces } from '@fadenweg/api';
import { decode, guessEncoding, looksBinary } from '@fadenweg/core/reading';
import { endpoint, type AnyEndpoint, type AnyInput } from '../platform/http/endpoint.ts';
import { instant, numbered } from '../platform/http/inputs.ts';
import { TooManyFiles } from '../platform/http/multipart.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { SourceTextRepository, TextToKeep } from './source-text-rows.ts';
import type { SourceTexts } from './source-texts.ts';
import { cleanPath } from '../platform/http/clean-path.ts';

const MOST_FILES = 20_000;
/** Of one file, and of all together, in bytes. */
const LARGEST = 2 << 20;
const LARGEST_ALL = 64 << 20;
const MOST_FRAMES = 500;
const MOST_LINES = 2000;
const text = (most: number): Joi.StringSchema => Joi.string().allow('').max(most);
const frame = Joi.object({
  code: text(1000).required(),
  unit: text(1000).required(),
  file: text(1000).allow(null).required(),
  line: Joi.number().integer().min(0).max(1e9).allow(null).required(),
});

export function sourceTextRoutes(rows: SourceTextRepository, texts: SourceTexts): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/source-texts',
      summary: 'Versions of components whose source texts are registered',
      async run(): Promise<Page<SourceText>> {
        return { items: await rows.all(), next: null };
      },
    }),
    endpoint<{ component: string; version: string }>({
      method: 'post',
      path: '/source-texts',
      summary:
        'Registers the source texts of a version: multipart, each file with its relative path as its name; what was registered for it before is replaced',
      status: 201,
      multipart: true,
      query: Joi.object({ component: Joi.string().trim().min(1).max(200).required(), version: Joi.string().trim().min(1).max(100).required() }),
      async run({ query, access, receive }): Promise<SourceText> {
        const { files, leftOut } = await received(receive);
        if (files.length === 0) throw new Refusal(400, 'No source text', 'None of the files is a text of up to 2 MB.', 'Give the folder that holds the program’s source text.'); // prettier-ignore
        return rows.keep({ ...query, leftOut }, access, files);
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/source-texts/{id}',
      summary: 'Forgets the source texts of a version',
      params: numbered,
      async run({ params }): Promise<void> {
        if (!(await rows.remove(params.id))) throw notFound(`Source text ${params.id}`);
      },
    }),
    endpoint<{ path: string; from: number; to: number }, { id: number }>({
      method: 'get',
      path: '/source-texts/{id}/lines',
      summary: 'Lines of one registered file',
      params: numbered,
      query: Joi.object({
        path: Joi.string().max(500).required(),
        from: Joi.number().integer().min(1).max(1e9).default(1),
        to: Joi.number().integer().min(Joi.ref('from')).max(1e9).default(MOST_LINES),
      }),
      run({ params, query }): Promise<TextLines> {
        const { path, from, to } = query;
        return texts.lines(params.id, path, from, Math.min(to, from + MOST_LINES - 1));
      },
    }),
    endpoint<unknown, unknown, Written>({
      method: 'post',
      path: '/source-texts/places',
      summary: 'Where in registered source texts the calls of a trace stand, and the line that wrote a message',
      body: Joi.object({
        component: text(200).required(),
        host: text(200).required(),
        environment: text(200).required(),
        at: instant.required(),
        logger: text(500).required(),
        message: text(4000).required(),
        frames: Joi.array().items(frame).max(MOST_FRAMES).required(),
      }),
      run: ({ body }): Promise<WrittenPlaces> => texts.places(body),
    }),
  ];
}

/** The texts of an upload; what is binary or too large is left out, what is too much altogether is refused. */
async function received(receive: AnyInput['receive']): Promise<{ files: TextToKeep[]; leftOut: number }> {
  const files = new Map<string, string>();
  let [leftOut, bytes] = [0, 0];
  const tooMuch = (what: string): Refusal =>
    new Refusal(413, 'Too much source text', what, 'Register the program’s own source text alone, without its libraries.');
  try {
    await receive({ files: MOST_FILES, fileSize: LARGEST }, async ({ name, content }) => {
      const chunks: Buffer[] = [];
      for await (const chunk of content as AsyncIterable<Buffer>) {
        bytes += chunk.length;
        if (bytes > LARGEST_ALL) throw tooMuch(`More than ${LARGEST_ALL >> 20} MB altogether.`);
        chunks.push(chunk);
      }
      const body = Buffer.concat(chunks);
      if (content.truncated || looksBinary(body)) leftOut++;
      else files.set(cleanPath(name), decode(body, guessEncoding(body)).replaceAll('\u0000', ''));
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    if (error instanceof TooManyFiles) throw tooMuch(`More than ${MOST_FILES.toLocaleString('en')} files.`);
    throw new Refusal(400, 'The upload broke off', (error as Error).message);
  }
  return { files: [...files].map(([path, body]) => ({ path, body })), leftOut };
}
