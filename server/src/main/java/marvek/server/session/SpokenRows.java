package marvek.server.session;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface SpokenRows extends JpaRepository<SpokenRow, UUID> {}
