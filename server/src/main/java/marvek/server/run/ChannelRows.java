package marvek.server.run;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface ChannelRows extends JpaRepository<LapChannels, UUID> {}
