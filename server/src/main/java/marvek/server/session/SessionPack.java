package marvek.server.session;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.ReferenceFile;
import marvek.core.lap.LapTrace;
import marvek.core.plan.ComputedLap;
import marvek.core.vehicle.SetupSheet;
import marvek.core.words.ReferenceCsv;
import marvek.core.words.ScoreCsv;
import marvek.core.words.Speaker;
import marvek.server.circuit.LayoutVersion;
import marvek.server.reference.References;
import org.springframework.stereotype.Component;

/**
 * All that belongs to a session in one file that is handed on: the brief, the reference as it is to
 * be driven then, the lap that it was reckoned with, the sheet that is on, and when it is.
 */
@Component
class SessionPack {
  private final Calendars calendars;
  private final ObjectMapper json;

  SessionPack(Calendars calendars, ObjectMapper json) {
    this.calendars = calendars;
    this.json = json;
  }

  byte[] of(PlannedSession session, SessionRow row, Planner.Outing driven, Speaker speaker)
      throws IOException {
    Map<String, byte[]> files = new TreeMap<>();
    files.put("brief-a4.pdf", BriefPdf.of(session, speaker, BriefPdf.Size.A4));
    files.put("brief-a5.pdf", BriefPdf.of(session, speaker, BriefPdf.Size.A5));
    files.put("brief.json", json.writeValueAsBytes(session));
    files.put("session.ics", calendars.written(java.util.List.of(row)));
    References.Opened opened = driven.reference();
    LayoutVersion layout = opened.layout();
    ReferenceContent today = opened.working().with(driven.entries());
    files.put(
        "reference.json",
        new ReferenceFile(
                ReferenceFile.FORMAT,
                opened.row().name() + " · " + row.body().name(),
                ReferenceFile.key(
                    layout.circuit().name(), layout.number(), layout.length(), layout.counted()),
                opened.row().name(),
                opened.computed().vehicle(),
                0,
                "",
                null,
                today)
            .write());
    files.put("corners.csv", text(ReferenceCsv.write(layout.counted(), today)));
    files.put(
        "actions.csv",
        text(ScoreCsv.write(layout.counted(), today, driven.then().road().length())));
    files.put("lap.csv", text(lap(driven.then())));
    SetupSheet sheet = opened.row().sheet();
    if (sheet != null) {
      files.put("sheet.json", json.writeValueAsBytes(sheet));
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
      files.forEach((name, bytes) -> put(zip, name, bytes));
    }
    return out.toByteArray();
  }

  private static byte[] text(String words) {
    return words.getBytes(StandardCharsets.UTF_8);
  }

  private static void put(ZipOutputStream zip, String name, byte[] bytes) {
    try {
      zip.putNextEntry(new ZipEntry(name));
      zip.write(bytes);
      zip.closeEntry();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The lap of the session at each station, SI. */
  private static String lap(ComputedLap then) {
    LapTrace lap = then.lap();
    StringBuilder out =
        new StringBuilder("station_m,time_s,speed_m_s,gear,throttle,brake,offset_left_m\r\n");
    for (int i = 0; i < lap.size(); i++) {
      out.append(
          String.format(
              Locale.ROOT,
              "%.2f,%.3f,%.3f,%d,%.3f,%.3f,%.2f\r\n",
              i * then.road().step(),
              lap.time()[i],
              lap.speed()[i],
              lap.gear()[i],
              lap.throttle()[i],
              lap.brake()[i],
              then.path().offset()[i]));
    }
    return out.toString();
  }
}
