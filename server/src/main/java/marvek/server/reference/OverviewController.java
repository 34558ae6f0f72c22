package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import java.util.stream.IntStream;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.DayKind;
import marvek.core.entry.Detail;
import marvek.core.entry.PointKind;
import marvek.core.plan.Answers;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Consistency;
import marvek.core.review.Hazards;
import marvek.core.review.Warning;
import marvek.core.review.Worth;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Sureness;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.words.Sentence;
import marvek.core.words.TenSeconds;
import marvek.server.access.Driver;
import marvek.server.work.Job;
import marvek.server.work.Jobs;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** A whole reference at a glance, the words that entries are made of, and copies. */
@RestController
@RequestMapping("/api")
class OverviewController {
  private final References references;
  private final Drafting drafting;
  private final Jobs jobs;
  private final Speaking speaking;

  OverviewController(References references, Drafting drafting, Jobs jobs, Speaking speaking) {
    this.jobs = jobs;
    this.references = references;
    this.drafting = drafting;
    this.speaking = speaking;
  }

  /** A corner in the table. */
  record CornerLineView(
      CornerEntry entry,
      Sentence.Words words,
      @Nullable Double marginMetres,
      @Nullable Double effect,
      double revs,
      double asks,
      Hazards hazards) {}

  /**
   * The whole lap.
   *
   * @param worth corners in the order in which they are worth working on
   * @param warnings what does not go together
   * @param unsure points that the driver is unsure of or has not proved, as "4 braking"
   * @param summary the lap in ten seconds
   */
  record OverviewView(
      List<CornerLineView> corners,
      List<Worth> worth,
      List<Warning> warnings,
      List<Said> unsure,
      String summary) {}

  /** A school as it is called. */
  record SchoolWords(School school, Question question, Said words) {}

  record QuestionWords(Question question, Said words) {}

  /** What a detail may hold: as it is stored, and as it is told. */
  record DetailChoice(String value, Said words) {}

  record DetailWords(
      Detail detail,
      Detail.Phase phase,
      Said words,
      boolean motorcycle,
      List<DetailChoice> choices) {}

  record KindWords(PointKind kind, Said words, boolean drafted) {}

  record VariantKind(DayKind kind, Said words, Day usual) {}

  record SurenessWords(Sureness sure, Said words, boolean standsOut) {}

  /** What entries are made of, in words. */
  record Catalogue(
      List<QuestionWords> questions,
      List<SchoolWords> schools,
      List<DetailWords> details,
      List<KindWords> kinds,
      List<VariantKind> variants,
      List<SurenessWords> sureness,
      List<ZoneWords> zones) {}

  /**
   * A kind of zone.
   *
   * @param water what water has to do with it
   * @param effect what it acts on, and with it the unit of its amount
   * @param usual amounts by severity from slight to severe
   * @param least that can be given
   * @param most that can be given
   */
  record ZoneWords(
      ZoneKind kind,
      Said words,
      Zone.Water water,
      Zone.Effect effect,
      List<Double> usual,
      double least,
      double most) {}

  record CopyRequest(
      @NotNull UUID layoutId,
      @NotNull UUID vehicleId,
      @Nullable UUID sheetId,
      @Nullable @Size(max = 100) String name) {}

  private static List<DetailChoice> choices(Detail d) {
    return d.choices().stream().map(c -> new DetailChoice(c, d.told(c))).toList();
  }

  @GetMapping("/catalogue")
  Catalogue catalogue() {
    return new Catalogue(
        Arrays.stream(Question.values()).map(q -> new QuestionWords(q, q.said())).toList(),
        Arrays.stream(School.values())
            .map(s -> new SchoolWords(s, s.question(), s.said()))
            .toList(),
        Arrays.stream(Detail.values())
            .map(d -> new DetailWords(d, d.phase(), d.said(), d.motorcycle(), choices(d)))
            .toList(),
        Arrays.stream(PointKind.values())
            .map(k -> new KindWords(k, k.said(), k.drafted()))
            .toList(),
        Arrays.stream(DayKind.values()).map(k -> new VariantKind(k, k.said(), k.usual())).toList(),
        Arrays.stream(Sureness.values())
            .map(s -> new SurenessWords(s, s.said(), s.standsOut()))
            .toList(),
        Arrays.stream(ZoneKind.values())
            .map(
                k ->
                    new ZoneWords(
                        k,
                        k.said(),
                        k.water(),
                        k.effect(),
                        IntStream.rangeClosed(1, 3).mapToObj(k::usual).toList(),
                        k.effect().least(),
                        k.effect().most()))
            .toList());
  }

  @GetMapping("/references/{id}/overview")
  OverviewView overview(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    References.Opened opened = references.read(driver.id(), id);
    List<CornerEntry> entries = opened.working().corners();
    List<Sentence.Words> words = speaking.words(opened.computed(), opened.working(), driver);
    List<CornerLineView> corners = new ArrayList<>();
    List<CornerAnswer> answers = new ArrayList<>();
    List<Warning> warnings = new ArrayList<>();
    List<Said> unsure = new ArrayList<>();
    var speech = speaking.speech(driver);
    for (int i = 0; i < entries.size(); i++) {
      CornerEntry e = entries.get(i);
      CornerAnswer a = Answers.answer(opened.computed(), opened.things(), e);
      answers.add(a);
      CornerAnswer.BrakingNumbers braking = a.braking();
      CornerAnswer.Pressing pressing = a.pressing();
      corners.add(
          new CornerLineView(
              e,
              words.get(i),
              braking == null ? null : braking.marginMetres(),
              a.lapEffect(),
              opened.computed().vehicle().revs(a.minimumSpeed(), Math.max(1, e.gear())),
              pressing == null ? 0 : pressing.asks(),
              Hazards.of(opened.computed(), opened.things(), e)));
      warnings.addAll(Consistency.corner(opened.computed(), opened.things(), e, a));
      String called =
          speech.corner(opened.computed().corners().get(opened.computed().indexOf(e.corner())));
      e.points().stream()
          .filter(
              p -> {
                Sureness sure = p.sure();
                return sure != null && sure.standsOut();
              })
          .forEach(
              p -> unsure.add(Said.of("page.unsure", Value.own(called), p.kind().said().in())));
    }
    List<Worth> worth = Worth.order(entries, answers);
    String summary =
        TenSeconds.of(
            opened.computed().corners(),
            entries,
            worth.stream().map(Worth::corner).toList(),
            speaking.speech(opened.computed(), driver));
    return new OverviewView(corners, worth, warnings, unsure, summary);
  }

  @PostMapping("/references/{id}/copies")
  Job copy(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody CopyRequest body) {
    references.open(driver.id(), id);
    String name = body.name() == null ? "" : body.name();
    return jobs.start(
        driver.id(),
        watch ->
            Job.Result.of(
                drafting
                    .copy(
                        driver.id(),
                        id,
                        body.layoutId(),
                        body.vehicleId(),
                        body.sheetId(),
                        name,
                        watch)
                    .id()));
  }
}
