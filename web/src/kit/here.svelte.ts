/** What the top line says about where one is. */
class Here {
  title = $state('');
  detail = $state('');
  reference = $state<string | null>(null);
  /** The run looked at last, of that reference. */
  run = $state<string | null>(null);

  say(title: string, detail = '', reference: string | null = this.reference) {
    this.title = title;
    this.detail = detail;
    if (reference !== this.reference) this.run = null;
    this.reference = reference;
  }
}

export const here = new Here();
