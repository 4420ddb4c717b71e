package store

import (
	"context"
	"fmt"

	"gorm.io/gorm"
)

// Done is that something was done in one of a painter's sittings.
type Done struct{ Painter, Sitting int64 }

// changed is the channel on which the processes on a database tell each other of it.
const changed = "gyrophane_sitting"

// tell lets every process know, once it is written, that something was done in a sitting.
func tell(tx *gorm.DB, painter, sitting int64) error {
	return tx.Exec("select pg_notify(?, ?)", changed, fmt.Sprintf("%d %d", painter, sitting)).Error
}

// Listen hears what is done in sittings, as Hear does.
func (s *Store) Listen(ctx context.Context, begun func(), heard func(Done)) {
	s.Hear(ctx, changed, begun, func(said string) {
		var of Done
		if n, err := fmt.Sscanf(said, "%d %d", &of.Painter, &of.Sitting); err == nil && n == 2 {
			heard(of)
		}
	})
}
