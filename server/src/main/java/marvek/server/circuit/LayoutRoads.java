package marvek.server.circuit;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface LayoutRoads extends JpaRepository<LayoutRoad, UUID> {}
