package marvek.server.run;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;
import marvek.core.telemetry.LapGrid;

/** The channels of a lap on the stations of the road, packed. */
@Entity
@Table(name = "lap_channels")
public class LapChannels {
  @Id private UUID lapId;
  private UUID ownerId;
  private byte[] body;

  @SuppressWarnings("NullAway.Init")
  protected LapChannels() {}

  LapChannels(LapRow lap, byte[] body) {
    this.lapId = lap.id();
    this.ownerId = lap.ownerId();
    this.body = body;
  }

  UUID ownerId() {
    return ownerId;
  }

  public UUID lapId() {
    return lapId;
  }

  public LapGrid grid() {
    return Packed.grid(body);
  }
}
