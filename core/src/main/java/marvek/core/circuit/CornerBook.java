package marvek.core.circuit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import marvek.core.refusal.Refusal;

/** Corners as the driver arranges them: checked, and measured anew on the road. */
public final class CornerBook {
  private static final Pattern ID = Pattern.compile("[A-Za-z0-9-]{1,20}");
  private static final int MOST = 200;
  private static final double SHORTEST = 4;
  // Corners whose measured ends overlap by a little are still two.
  private static final double OVERLAP = 2;
  private static final double APEX_MOVED = 3;
  // What turns less may be the scatter of the points that the road was read from.
  private static final double CLEARLY = Math.toRadians(20);

  private CornerBook() {}

  /**
   * The corners in driving order, with side, radius, angle and kind measured between entry and exit
   * and, where the list gives none, an apex at the tightest place. Names, numbers, groups and what
   * counts are taken as they stand.
   *
   * @throws Refusal naming the corner that is wrong
   */
  public static List<Corner> settled(Centreline road, List<Corner> given) {
    if (given.stream().allMatch(Corner::uncounted)) {
      throw new Refusal("No corner would be left.", "corners", "A layout needs one that counts.");
    }
    if (given.size() > MOST) {
      throw new Refusal(
          given.size() + " corners are too many.", "corners", "Give up to " + MOST + ".");
    }
    Set<String> ids = new LinkedHashSet<>();
    Set<String> numbers = new LinkedHashSet<>();
    List<Corner> out = new ArrayList<>();
    for (Corner c : given) {
      String where = "T" + c.number();
      if (!ID.matcher(c.id()).matches() || !ids.add(c.id())) {
        throw new Refusal("Two corners have one id.", where, "Reload the page.");
      }
      words(c, where);
      if (!c.uncounted() && !numbers.add(c.number().strip())) {
        throw new Refusal(
            "Two corners are numbered " + c.number() + ".", where, "Give one another number.");
      }
      out.add(measured(road, c, where));
    }
    out.sort((a, b) -> Double.compare(a.apexes().get(0), b.apexes().get(0)));
    for (int i = 0; i < out.size() && out.size() > 1; i++) {
      Corner a = out.get(i);
      Corner b = out.get((i + 1) % out.size());
      if (road.apart(a.exit(), b.entry()) < -OVERLAP) {
        throw new Refusal(
            "T" + b.number() + " starts before T" + a.number() + " ends.",
            "T" + b.number(),
            "Move the entry or the exit, or merge the two.");
      }
    }
    return List.copyOf(out);
  }

  /**
   * A road's corners with what is found on it today beside them.
   *
   * @param corners the ones there, with their ids, numbers, names and ends, and the apexes found
   *     today; and the ones added
   * @param added corners where there was none
   * @param apexes ids of corners whose apex lies elsewhere
   */
  public record Anew(List<Corner> corners, List<Corner> added, List<String> apexes) {}

  /** Finds the corners again beside the ones there, which stay. */
  public static Anew anew(Centreline road, List<Corner> there) {
    List<Corner> all = new ArrayList<>(there);
    List<Corner> added = new ArrayList<>();
    List<String> apexes = new ArrayList<>();
    List<Corner> today = CornerFinder.find(road);
    for (Corner found : today) {
      List<Corner> shared = there.stream().filter(c -> overlap(road, c, found) > OVERLAP).toList();
      if (shared.isEmpty() && found.angle() >= CLEARLY) {
        Corner fresh = fresh(road, all, found);
        all.add(fresh);
        added.add(fresh);
      } else if (shared.size() == 1) {
        Corner c = shared.get(0);
        boolean one = c.apexes().size() == 1 && found.apexes().size() == 1;
        boolean within = road.ahead(c.entry(), found.apex()) <= road.ahead(c.entry(), c.exit());
        // One that the driver has merged of two keeps its apex.
        boolean alone = today.stream().filter(f -> overlap(road, c, f) > OVERLAP).count() == 1;
        if (alone && one && within && Math.abs(road.apart(c.apex(), found.apex())) > APEX_MOVED) {
          apexes.add(c.id());
          all.set(all.indexOf(c), c.apexed(found.apexes()));
        }
      }
    }
    try {
      return new Anew(settled(road, all), List.copyOf(added), List.copyOf(apexes));
    } catch (Refusal p) {
      // What does not go with the corners as the driver has them is not offered.
      return new Anew(there, List.of(), List.of());
    }
  }

  /** Metres that two corners share, or less than nothing. */
  private static double overlap(Centreline road, Corner a, Corner b) {
    double begins = road.apart(a.entry(), b.entry()) > 0 ? b.entry() : a.entry();
    double ends = road.apart(a.exit(), b.exit()) > 0 ? a.exit() : b.exit();
    return road.apart(begins, ends);
  }

  /** Numbered after the one before it: 4A behind 4. */
  private static Corner fresh(Centreline road, List<Corner> all, Corner found) {
    String id = free(all.stream().map(Corner::id).toList(), "c", all.size() + 1);
    String before =
        all.stream()
            .filter(c -> !c.uncounted() && c.number().length() < 5)
            .min(Comparator.comparingDouble(c -> road.ahead(c.apex(), found.apex())))
            .map(Corner::number)
            .orElse("0");
    List<String> numbers = all.stream().map(Corner::number).toList();
    for (char letter = 'A'; letter <= 'Z'; letter++) {
      if (!numbers.contains(before + letter)) {
        return found.numbered(id, before + letter);
      }
    }
    return found.numbered(id, free(numbers, "", all.size() + 1));
  }

  private static String free(List<String> taken, String before, int from) {
    int k = from;
    while (taken.contains(before + k)) {
      k++;
    }
    return before + k;
  }

  private static void words(Corner c, String where) {
    if (!c.uncounted() && (c.number().isBlank() || c.number().length() > 6)) {
      throw new Refusal(
          "A corner's number has 1 to 6 characters.", where, "Write 5, 5A or the like.");
    }
    if (c.name().length() > 60) {
      throw new Refusal("The name is too long.", where, "60 characters are the most.");
    }
    if (c.complex() < 0 || c.complex() > MOST) {
      throw new Refusal("There is no such group.", where, "Choose another.");
    }
  }

  private static Corner measured(Centreline road, Corner c, String where) {
    double length = road.length();
    boolean inside = c.entry() >= 0 && c.entry() < length && c.exit() >= 0 && c.exit() < length;
    double span = inside ? road.ahead(c.entry(), c.exit()) : 0;
    if (!inside || span < SHORTEST || span > length / 2) {
      throw new Refusal(
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
      throw new Refusal("A corner has one apex or two.", where, "Split it.");
    }
    for (double apex : apexes) {
      if (!(apex >= 0 && apex < length && road.ahead(c.entry(), apex) <= span)) {
        throw new Refusal(
            "An apex lies outside its corner.", where, "Move it between entry and exit.");
      }
    }
    if (apexes.size() == 2 && road.apart(apexes.get(0), apexes.get(1)) <= 0) {
      throw new Refusal("The two apexes are in the wrong order.", where, "Swap them.");
    }
    int[] indices = {from, from + count};
    double radius = 1 / Math.max(CornerFinder.evenPart(road, indices).bend(), 1e-4);
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
        c.uncounted(),
        c.doubt());
  }
}
