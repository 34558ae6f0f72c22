package marvek.core.reference;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import marvek.core.circuit.Corner;

/** Refuses content that no layout and vehicle could give. */
public final class ContentCheck {
  private static final int LONGEST_NOTE = 2000;

  private ContentCheck() {}

  /**
   * Checks a whole reference.
   *
   * @param corners of the layout
   * @param length of the lap, metres
   * @param gears of the vehicle
   * @throws ReferenceProblem naming the first corner and field that is wrong
   */
  public static void content(
      List<Corner> corners, double length, int gears, ReferenceContent content) {
    Set<String> seen = new HashSet<>();
    for (CornerEntry entry : content.corners()) {
      if (!seen.add(entry.corner())) {
        throw new ReferenceProblem(
            "Corner " + entry.corner() + " comes twice.", entry.corner(), "Leave one entry.");
      }
      entry(corners, length, gears, entry);
    }
  }

  /** Checks one corner. */
  public static void entry(List<Corner> corners, double length, int gears, CornerEntry e) {
    Corner corner =
        corners.stream()
            .filter(c -> c.id().equals(e.corner()))
            .findFirst()
            .orElseThrow(
                () ->
                    new ReferenceProblem(
                        "There is no corner " + e.corner() + " in this layout version.",
                        e.corner(),
                        "Choose the layout that the reference was made for."));
    String where = "T" + corner.number();
    Set<PointKind> kinds = new HashSet<>();
    for (CornerPoint p : e.points()) {
      if (!kinds.add(p.kind())) {
        throw new ReferenceProblem(
            "The " + p.kind().word() + " comes twice.", where, "Leave one of them.");
      }
      within(where, "station of the " + p.kind().word(), p.station(), 0, length);
    }
    within(where, "gear", e.gear(), 1, gears);
    within(where, "gear on approach", e.approachGear(), 1, gears);
    within(where, "first effort", e.firstEffort(), 0, 1);
    within(where, "first throttle", e.firstThrottle(), 0, 1);
    within(where, "speed on approach", e.approachSpeed(), 0, 140);
    within(where, "minimum speed", e.minimumSpeed(), 0, 140);
    within(where, "distance at the apex", e.apexGap(), -20, 40);
    if (e.note().length() > LONGEST_NOTE) {
      throw new ReferenceProblem(
          "The note is longer than " + LONGEST_NOTE + " characters.", where, "Shorten it.");
    }
  }

  private static void within(String where, String what, double value, double least, double most) {
    if (!(value >= least && value <= most)) {
      throw new ReferenceProblem(
          "The " + what + " (" + value + ") is out of range.",
          where,
          "It must lie between " + least + " and " + most + ".");
    }
  }
}
