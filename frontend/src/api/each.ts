type Change<Sent, Data> = { mutateAsync: (sent: Sent) => Promise<Data> };
type Told<Data> = { onSuccess?: (data: Data) => void; onError: (error: unknown) => void };

/**
 * Sends a change and tells what became of it, whatever is sent after it and wherever the page is by
 * then: what is handed to `mutate` is told of its latest call alone, so that of three keys pressed
 * quickly one would be answered.
 */
export function each<Sent, Data>(
  change: Change<Sent, Data>,
  sent: Sent,
  { onSuccess, onError }: Told<Data>,
): void {
  void change.mutateAsync(sent).then(onSuccess, onError);
}
