package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtStart;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Calendars in and out, read back by another library (RFC 5545). */
@ServerTest
class CalendarTest {
  @Autowired private People people;
  private People.Person person;

  @BeforeEach
  void person() {
    person = people.newcomer();
  }

  private People.Answer bring(String text) {
    return person.upload("/api/calendar", "Meeting.ics", text.getBytes(StandardCharsets.UTF_8));
  }

  private static String calendar(String... events) {
    StringBuilder out =
        new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//somebody//EN\r\n");
    for (String e : events) {
      out.append("BEGIN:VEVENT\r\nDTSTAMP:20260101T000000Z\r\n").append(e).append("END:VEVENT\r\n");
    }
    return out.append("END:VCALENDAR\r\n").toString();
  }

  private List<JsonNode> sessions() {
    List<JsonNode> out = new ArrayList<>();
    for (JsonNode e : person.get("/api/events").body().path("events")) {
      e.path("sessions").forEach(out::add);
    }
    return out;
  }

  @Test
  void aCalendarBecomesSessionsAtTheCircuitsClock() {
    People.Answer taken =
        bring(
            calendar(
                "UID:a\r\nSUMMARY:Free practice 1\r\nDTSTART;TZID=Europe/Lisbon:20260606T093000\r\n"
                    + "DTEND;TZID=Europe/Lisbon:20260606T095500\r\n"
                    + "BEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:-PT5M\r\nEND:VALARM\r\n",
                "UID:b\r\nSUMMARY:Race\r\nDTSTART:20260607T130000Z\r\nDURATION:PT40M\r\n",
                "UID:c\r\nSUMMARY:Bank holiday\r\nDTSTART;VALUE=DATE:20260608\r\n"));
    assertThat(taken.status()).as(taken.text()).isEqualTo(200);
    assertThat(taken.body().path("added").asInt()).isEqualTo(2);
    assertThat(taken.body().path("left").path(0).asText()).contains("Bank holiday", "no hour");
    JsonNode practice = sessions().get(0);
    assertThat(practice.path("begins").asText()).isEqualTo("2026-06-06T08:30:00Z");
    assertThat(practice.path("session").path("kind").asText()).isEqualTo("PRACTICE");
    assertThat(practice.path("session").path("timing").path("minutes").asInt()).isEqualTo(25);
    JsonNode race = sessions().get(1);
    assertThat(race.path("begins").asText()).isEqualTo("2026-06-07T13:00:00Z");
    assertThat(race.path("session").path("timing").path("minutes").asInt()).isEqualTo(40);
  }

  @Test
  void theSameCalendarAgainChangesWhatMovedAndAddsNothing() {
    String first = "UID:a\r\nSEQUENCE:1\r\nSUMMARY:Race\r\nDTSTART:20260607T130000Z\r\n";
    bring(calendar(first));
    assertThat(bring(calendar(first)).body().path("added").asInt()).isZero();
    JsonNode moved =
        bring(calendar(first.replace("T13", "T14").replace("SEQUENCE:1", "SEQUENCE:2"))).body();
    assertThat(moved.path("changed").asInt()).isEqualTo(1);
    assertThat(sessions()).hasSize(1);
    assertThat(sessions().get(0).path("begins").asText()).isEqualTo("2026-06-07T14:00:00Z");
  }

  @Test
  void repeatsAreBoundedAndNothingElseIsTakenForACalendar() {
    JsonNode many =
        bring(
                calendar(
                    "UID:r\r\nSUMMARY:Lesson\r\nDTSTART:20260601T100000Z\r\nRRULE:FREQ=DAILY\r\n"))
            .body();
    assertThat(many.path("added").asInt()).isBetween(2, 60);
    assertThat(bring("not a calendar").status()).isEqualTo(422);
    assertThat(bring("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:nonsense\r\n").status())
        .isLessThan(500);
    String[] events = new String[501];
    for (int i = 0; i < events.length; i++) {
      events[i] = "UID:e" + i + "\r\nSUMMARY:x\r\nDTSTART:20260607T130000Z\r\n";
    }
    assertThat(bring(calendar(events)).status()).isEqualTo(422);
  }

  @Test
  void whatGoesOutIsReadBackByAnotherLibrary() throws Exception {
    String name =
        "Qualifying — Serra, große Runde mit einem sehr, sehr langen Namen für zwei Zeilen";
    bring(
        calendar(
            "UID:out\r\nSUMMARY:" + name + "\r\nDTSTART:20260607T130000Z\r\nDURATION:PT30M\r\n"));
    String id = sessions().get(0).path("id").asText();
    for (int i = 0; i < 2; i++) {
      person.post("/api/sessions/{id}/turned", Map.of("turn", "LATER", "minutes", 5), id);
    }
    byte[] file = person.get("/api/calendar.ics").result().getResponse().getContentAsByteArray();
    String text = new String(file, StandardCharsets.UTF_8);
    for (String line : text.split("\r\n")) {
      assertThat(line.getBytes(StandardCharsets.UTF_8).length).isLessThanOrEqualTo(75);
    }
    var calendar = new CalendarBuilder().build(new StringReader(text));
    VEvent event = calendar.<VEvent>getComponents("VEVENT").get(0);
    assertThat(event.getUid().orElseThrow().getValue()).isEqualTo("out");
    assertThat(event.getSummary().getValue()).isEqualTo(name.replace("\\,", ","));
    assertThat(event.getSequence().getSequenceNo()).isEqualTo(2);
    DtStart<Temporal> start = event.getDateTimeStart();
    assertThat(Instant.from(start.getDate())).isEqualTo(Instant.parse("2026-06-07T13:10:00Z"));
    assertThat(text).containsPattern("DTSTAMP:\\d{8}T\\d{6}Z");
  }

  @Test
  void whatIsNoFileIsRefusedAndNotTrouble() {
    assertThat(person.post("/api/calendar", Map.of("file", "../../etc")).status())
        .isBetween(400, 422);
  }

  /**
   * Times without a zone, in a zone that nobody knows, and in UTC are those of the circuit's clock.
   */
  @Test
  void aTimeWithoutAZoneIsTheOneOnTheCircuitsWall() {
    Made made = Made.reference(person, "small-hatch");
    String zone = made.open().path("zone").asText();
    assertThat(zone).isNotBlank();
    bring(
        calendar(
            "UID:f\r\nSUMMARY:Floating\r\nDTSTART:20260606T093000\r\n",
            "UID:w\r\nSUMMARY:Unknown\r\nDTSTART;TZID=Circuit Standard Time:20260606T103000\r\n",
            "UID:u\r\nSUMMARY:Universal\r\nDTSTART:20260606T120000Z\r\n"));
    java.time.ZoneId at = java.time.ZoneId.of(zone);
    List<JsonNode> all = sessions();
    assertThat(all.get(0).path("local").asText()).isEqualTo("2026-06-06T09:30:00");
    assertThat(all.get(1).path("local").asText()).isEqualTo("2026-06-06T10:30:00");
    assertThat(Instant.parse(all.get(2).path("begins").asText()))
        .isEqualTo(Instant.parse("2026-06-06T12:00:00Z"));
    assertThat(all.get(2).path("session").at("/timing/start/zone").asText()).isEqualTo(at.getId());
  }
}
