package marvek.core.marker;

/**
 * A thing that the driver can see.
 *
 * @param id stable name inside the layout version
 * @param kind what it is
 * @param label what is written on it or what it is called: "100"
 * @param station metres from the start/finish line
 * @param left true when it stands on the left
 * @param corner id of the corner that it announces, or empty
 */
public record Landmark(
    String id, Kind kind, String label, double station, boolean left, String corner) {

  /** Sorts of landmark. */
  public enum Kind {
    BOARD("board"),
    LINE("painted line"),
    SEAM("seam"),
    KERB("kerb"),
    BARRIER("barrier end"),
    POST("post"),
    ROAD("access road"),
    BRIDGE("bridge"),
    TREE("tree"),
    OTHER("mark");

    private final String word;

    Kind(String word) {
      this.word = word;
    }

    public String word() {
      return word;
    }
  }

  /** How a driver says it: "the 100 board", "the old oak". */
  public String spoken() {
    return switch (kind) {
      case BOARD -> "the " + label + " board";
      case OTHER -> label;
      default -> label.isBlank() ? "the " + kind.word : "the " + label;
    };
  }
}
