package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import marvek.core.refusal.Refusal;
import marvek.core.rehearse.Performance.Control;
import marvek.core.rehearse.Performance.DueAction;
import marvek.core.score.ActionKind;
import org.assertj.core.api.Assertions;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What is known, from all that was answered. */
class KnownTest {
  private static final Instant NOON = Instant.parse("2026-06-06T12:00:00Z");
  private static final double LAP = 3000;

  private static Fact place(String corner, double answer) {
    return new Fact(
        corner + "/brake/PLACE",
        corner,
        "brake",
        ActionKind.BRAKE,
        Fact.Asks.PLACE,
        answer,
        6,
        0.1,
        false);
  }

  private static Rehearsed told(Fact f, @Nullable Double told) {
    return new Rehearsed(
        f.id(),
        told,
        f.answer(),
        f.precision(),
        0,
        0,
        false,
        null,
        null,
        List.of(),
        List.of(),
        null);
  }

  private static Known.Given given(Fact f, @Nullable Double told, int hours) {
    return new Known.Given(NOON.plus(Duration.ofHours(hours)), told(f, told));
  }

  @Test
  void aFactStandsByItsLastAnswerAndRemembersWhenItWasRight() {
    Fact f = place("c1", 500);
    Map<String, Known.Standing> known =
        Known.of(List.of(f), List.of(given(f, 503.0, 0), given(f, 530.0, 48)), LAP, Weights.USUAL);
    Known.Standing s = known.get(f.id());
    assertThat(s).isNotNull();
    assertThat(s.error()).isEqualTo(30);
    assertThat(s.times()).isEqualTo(2);
    assertThat(s.right()).isEqualTo(NOON);
    assertThat(s.grade()).isEqualTo(Grade.AGAIN);
    // As the model takes "easy" and two days later "again".
    assertThat(s.memory()).isEqualTo(Memory.first(Grade.EASY).next(Grade.AGAIN, 2));
    Known.Standing none =
        Known.of(List.of(f), List.of(given(f, null, 0)), LAP, Weights.USUAL).get(f.id());
    assertThat(none).isNotNull();
    assertThat(none.error()).isNull();
    assertThat(none.right()).isNull();
  }

  /** A marker that was moved since is not known, however well the old one was. */
  @Test
  void whatIsElsewhereNowIsNotKnown() {
    Fact was = place("c1", 500);
    assertThat(
            Known.of(List.of(place("c1", 505)), List.of(given(was, 500.0, 0)), LAP, Weights.USUAL))
        .hasSize(1);
    assertThat(
            Known.of(List.of(place("c1", 512)), List.of(given(was, 500.0, 0)), LAP, Weights.USUAL))
        .isEmpty();
  }

  @Test
  void aCornerIsReadyWhenEveryPlaceWasToldWithinEightMetres() {
    Fact one = place("c1", 500);
    Fact other =
        new Fact(
            "c1/full/PLACE", "c1", "full", ActionKind.FULL, Fact.Asks.PLACE, 600, 6, 0.1, false);
    Fact second = place("c2", 900);
    List<Fact> facts = List.of(one, other, second);
    Map<String, Known.Standing> some =
        Known.of(facts, List.of(given(one, 507.9, 0), given(second, 891.9, 0)), LAP, Weights.USUAL);
    assertThat(Known.readiness(facts, some))
        .isEqualTo(new Known.Readiness(0, 2, List.of("c1", "c2")));
    Map<String, Known.Standing> more =
        Known.of(facts, List.of(given(one, 507.9, 0), given(other, 598.0, 1)), LAP, Weights.USUAL);
    assertThat(Known.readiness(facts, more)).isEqualTo(new Known.Readiness(1, 2, List.of("c2")));
  }

  /** The day is the driver's own: what was known at eleven at night is asked again at one. */
  @Test
  void whatIsKnownTodayIsLeftAloneUntilTheNextDay() {
    ZoneId zone = ZoneId.of("Asia/Tokyo");
    Fact f = place("c1", 500);
    // 23:00 in Tokyo.
    Map<String, Known.Standing> known =
        Known.of(List.of(f), List.of(given(f, 500.0, 2)), LAP, Weights.USUAL);
    Instant then = NOON.plus(Duration.ofHours(2));
    assertThat(held(known, then.plusSeconds(600), zone).wellToday()).isTrue();
    assertThat(held(known, then.plus(Duration.ofHours(2)), zone).wellToday()).isFalse();
    assertThat(held(known, then.plus(Duration.ofHours(36)), zone).ago())
        .isCloseTo(1.5, within(1e-9));
  }

  private static Recall.Held held(Map<String, Known.Standing> known, Instant now, ZoneId zone) {
    return Known.held(known, now, zone).values().iterator().next();
  }

  private static Rehearsed piece(@Nullable Double start, @Nullable Double end, double rate) {
    return new Rehearsed(
        "", null, 0, 0, rate, 0.02, false, start, end, List.of(Control.BRAKE), List.of(), null);
  }

  @Test
  void aPieceHoldsWhatWasDueInItAlsoOverTheLine() {
    List<DueAction> lap =
        List.of(
            new DueAction("c1", "brake", Control.BRAKE, 8, 400, null),
            new DueAction("c1", "hands", Control.HANDS, 9, 450, null),
            new DueAction("c9", "brake", Control.BRAKE, 88, 2900, null));
    assertThat(piece(null, null, 1).due(lap, 90)).hasSize(2);
    assertThat(piece(4.0, 20.0, 1).due(lap, 90)).containsExactly(lap.get(0));
    List<DueAction> over = piece(80.0, 100.0, 1).due(lap, 90);
    assertThat(over.stream().map(DueAction::at).toList()).containsExactly(88.0, 98.0);
    // Before the line the end of the lap before comes by.
    assertThat(piece(-4.0, 3.0, 1).due(lap, 90).stream().map(DueAction::at).toList())
        .containsExactly(-2.0);
  }

  @Test
  void whatCannotBeIsRefused() {
    piece(null, null, 0.5).check();
    for (Rehearsed bad :
        List.of(
            piece(null, null, 2),
            new Rehearsed("f", 1.0, 1, 1, 0, 0.9, false, null, null, List.of(), List.of(), null),
            new Rehearsed(
                "f", Double.NaN, 1, 1, 0, 0, false, null, null, List.of(), List.of(), null))) {
      Assertions.assertThatThrownBy(bad::check).isInstanceOf(Refusal.class);
    }
  }
}
