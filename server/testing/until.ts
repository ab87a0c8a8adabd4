/** Asks again until what is answered is enough, leaving the threads that are waited for the time between. */
export async function until<T>(ask: () => T | Promise<T>, enough: (answer: T) => boolean): Promise<T> {
  for (;;) {
    const answer = await ask();
    if (enough(answer)) return answer;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}
