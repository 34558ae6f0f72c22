package marvek.server.run;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface LapRows extends JpaRepository<LapRow, UUID> {
  List<LapRow> findByRunIdOrderByStarted(UUID runId);

  List<LapRow> findByRunIdInOrderByStarted(Collection<UUID> runIds);

  @Query(
      "select new marvek.server.run.LapLine(l.id, l.runId, l.recordingId, l.number, l.kind,"
          + " l.counts, l.lapTime, l.sectors, l.remark, l.note, l.step, l.told, l.grip)"
          + " from LapRow l where l.runId in :runs order by l.started")
  List<LapLine> lines(Collection<UUID> runs);

  @Query(
      "select new marvek.server.run.LapTimes(l.id, l.runId, l.number, l.lapTime, l.step, l.times)"
          + " from LapRow l where l.runId in :runs and l.counts = true order by l.started")
  List<LapTimes> counted(Collection<UUID> runs);

  List<LapRow> findByRecordingId(UUID recordingId);
}
