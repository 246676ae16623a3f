/**
 * What a file of JSON holds; whether it is what it should be the server says.
 *
 * @throws Error in words where it is no JSON
 */
export async function jsonOf<T>(file: File): Promise<T> {
  const text = await file.text();
  try {
    return JSON.parse(text) as T;
  } catch (error) {
    throw new Error(`${file.name} is no JSON: ${(error as Error).message}. Nothing was changed.`, { cause: error });
  }
}
