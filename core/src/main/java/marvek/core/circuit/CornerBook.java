package marvek.core.circuit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/** Corners as the driver arranges them: checked, and measured anew on the road. */
public final class CornerBook {
  private static final Pattern ID = Pattern.compile("[A-Za-z0-9-]{1,20}");
  private static final int MOST = 200;
  private static final double SHORTEST = 4;
  // Corners whose measured ends overlap by a little are still two.
  private static final double OVERLAP = 2;

  private CornerBook() {}

  /**
   * Something that cannot be.
   *
   * @param where "T5"
   */
  public static final class CornerProblem extends RuntimeException {
    private static final long serialVersionUID = 1;
    private final String where;
    private final String remedy;

    CornerProblem(String message, String where, String remedy) {
      super(message);
      this.where = where;
      this.remedy = remedy;
    }

    public String where() {
      return where;
    }

    public String remedy() {
      return remedy;
    }
  }

  /**
   * The corners in driving order, with side, radius, angle and kind measured between entry and exit
   * and, where the list gives none, an apex at the tightest place. Names, numbers, groups and what
   * counts are taken as they stand.
   *
   * @throws CornerProblem naming the corner that is wrong
   */
  public static List<Corner> settled(Centreline road, List<Corner> given) {
    if (given.stream().allMatch(Corner::uncounted)) {
      throw new CornerProblem(
          "No corner would be left.", "corners", "A layout needs one that counts.");
    }
    if (given.size() > MOST) {
      throw new CornerProblem(
          given.size() + " corners are too many.", "corners", "Give up to " + MOST + ".");
    }
    Set<String> ids = new LinkedHashSet<>();
    Set<String> numbers = new LinkedHashSet<>();
    List<Corner> out = new ArrayList<>();
    for (Corner c : given) {
      String where = "T" + c.number();
      if (!ID.matcher(c.id()).matches() || !ids.add(c.id())) {
        throw new CornerProblem("Two corners have one id.", where, "Reload the page.");
      }
      words(c, where);
      if (!c.uncounted() && !numbers.add(c.number().strip())) {
        throw new CornerProblem(
            "Two corners are numbered " + c.number() + ".", where, "Give one another number.");
      }
      out.add(measured(road, c, where));
    }
    out.sort((a, b) -> Double.compare(a.apexes().get(0), b.apexes().get(0)));
    for (int i = 0; i < out.size() && out.size() > 1; i++) {
      Corner a = out.get(i);
      Corner b = out.get((i + 1) % out.size());
      if (road.apart(a.exit(), b.entry()) < -OVERLAP) {
        throw new CornerProblem(
            "T" + b.number() + " starts before T" + a.number() + " ends.",
            "T" + b.number(),
            "Move the entry or the exit, or merge the two.");
      }
    }
    return List.copyOf(out);
  }

  private static void words(Corner c, String where) {
    if (!c.uncounted() && (c.number().isBlank() || c.number().length() > 6)) {
      throw new CornerProblem(
          "A corner's number has 1 to 6 characters.", where, "Write 5, 5A or the like.");
    }
    if (c.name().length() > 60) {
      throw new CornerProblem("The name is too long.", where, "60 characters are the most.");
    }
    if (c.complex() < 0 || c.complex() > MOST) {
      throw new CornerProblem("There is no such group.", where, "Choose another.");
    }
  }

  private static Corner measured(Centreline road, Corner c, String where) {
    double length = road.length();
    boolean inside = c.entry() >= 0 && c.entry() < length && c.exit() >= 0 && c.exit() < length;
    double span = inside ? road.ahead(c.entry(), c.exit()) : 0;
    if (!inside || span < SHORTEST || span > length / 2) {
      throw new CornerProblem(
          "The corner's ends make no corner.",
          where,
          "Its exit must lie at least 4 m past its entry, both on the lap.");
    }
    int from = road.index(c.entry());
    int count = (int) Math.round(span / road.step());
    double angle = 0;
    double tightest = 0;
    int at = from;
    for (int k = 0; k <= count; k++) {
      double kappa = road.curvature()[(from + k) % road.size()];
      angle += kappa * road.step();
      if (Math.abs(kappa) > tightest) {
        tightest = Math.abs(kappa);
        at = from + k;
      }
    }
    List<Double> apexes = c.apexes();
    if (apexes.isEmpty()) {
      apexes = List.of((at % road.size()) * road.step());
    }
    if (apexes.size() > 2) {
      throw new CornerProblem("A corner has one apex or two.", where, "Split it.");
    }
    for (double apex : apexes) {
      if (!(apex >= 0 && apex < length && road.ahead(c.entry(), apex) <= span)) {
        throw new CornerProblem(
            "An apex lies outside its corner.", where, "Move it between entry and exit.");
      }
    }
    if (apexes.size() == 2 && road.apart(apexes.get(0), apexes.get(1)) <= 0) {
      throw new CornerProblem("The two apexes are in the wrong order.", where, "Swap them.");
    }
    double radius = 1 / Math.max(tightest, 1e-4);
    CornerKind kind =
        c.kind() == CornerKind.CHICANE && c.complex() > 0
            ? CornerKind.CHICANE
            : CornerFinder.kind(radius, Math.abs(angle), apexes.size());
    return new Corner(
        c.id(),
        c.number().strip(),
        c.name().strip(),
        angle > 0,
        c.entry(),
        apexes,
        c.exit(),
        radius,
        Math.abs(angle),
        kind,
        c.complex(),
        c.uncounted());
  }
}
