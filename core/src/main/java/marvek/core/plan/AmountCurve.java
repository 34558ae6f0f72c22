package marvek.core.plan;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What it costs to do an action with more or less than is written.
 *
 * @param action id
 * @param across whether the amount is metres off the inside, else a share from 0 to 1
 * @param written the amount as it stands
 * @param amounts driven, in order, with the one that is written among them
 * @param seconds lost up to the next braking at each of them, negative is won; null where the
 *     corner cannot be made
 */
public record AmountCurve(
    String action,
    boolean across,
    double written,
    List<Double> amounts,
    List<@Nullable Double> seconds) {
  public AmountCurve {
    amounts = List.copyOf(amounts);
  }
}
