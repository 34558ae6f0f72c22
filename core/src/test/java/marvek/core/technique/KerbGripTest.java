package marvek.core.technique;

import static org.assertj.core.api.Assertions.assertThat;

import marvek.core.survey.Kerb;
import marvek.core.survey.KerbProfile;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class KerbGripTest {
  private static Kerb kerb(KerbProfile profile, boolean slippery) {
    return new Kerb(
        "k",
        true,
        10,
        30,
        "c1",
        Kerb.Part.EXIT,
        profile,
        1,
        0.05,
        Kerb.Behind.GRASS,
        slippery,
        Kerb.Verdict.OPEN,
        "",
        "");
  }

  @ParameterizedTest
  @EnumSource(KerbProfile.class)
  void slipperyPaintLosesItsGripInTheWetOnly(KerbProfile profile) {
    double dry = SchoolLine.grip(kerb(profile, true), 1);
    assertThat(dry).isEqualTo(SchoolLine.grip(kerb(profile, false), 1)).isBetween(0.5, 1.0);
    assertThat(SchoolLine.grip(kerb(profile, true), 0.7)).isLessThan(0.7 * dry);
    assertThat(SchoolLine.grip(kerb(profile, false), 0.7)).isEqualTo(dry);
  }
}
