/** What the top line says about where one is. */
class Here {
  title = $state('');
  detail = $state('');
  reference = $state<string | null>(null);

  say(title: string, detail = '', reference: string | null = this.reference) {
    this.title = title;
    this.detail = detail;
    this.reference = reference;
  }
}

export const here = new Here();
