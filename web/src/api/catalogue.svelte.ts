import { api, ask, type Catalogue, type Detail, type DetailWords, type Question, type School } from './api';

/** What entries are made of, in words; asked for once. */
class Words {
  all = $state.raw<Catalogue | null>(null);
  private asking: Promise<Catalogue> | null = null;

  async load(): Promise<Catalogue> {
    this.asking ??= ask(api.GET('/api/catalogue'));
    try {
      this.all = await this.asking;
      return this.all;
    } catch (e) {
      this.asking = null;
      throw e;
    }
  }

  question(question: Question): string {
    return this.all?.questions.find((q) => q.question === question)?.words ?? question;
  }

  school(school: School): string {
    return this.all?.schools.find((s) => s.school === school)?.words ?? school;
  }

  questionOf(school: School): Question | undefined {
    return this.all?.schools.find((s) => s.school === school)?.question;
  }

  detail(detail: Detail): DetailWords | undefined {
    return this.all?.details.find((d) => d.detail === detail);
  }
}

export const catalogue = new Words();
