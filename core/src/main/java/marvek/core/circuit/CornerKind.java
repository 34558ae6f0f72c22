package marvek.core.circuit;

/** Sorts of corner, told apart by radius, angle and neighbours. */
public enum CornerKind {
  KINK("kink"),
  BEND("bend"),
  SWEEPER("long fast bend"),
  HAIRPIN("hairpin"),
  DOUBLE_APEX("double apex"),
  CHICANE("chicane part");

  private final String words;

  CornerKind(String words) {
    this.words = words;
  }

  public String words() {
    return words;
  }
}
