package studio

import (
	"context"
	"errors"

	"gyrophane/core/input"
	"gyrophane/store"
)

// Receive takes a piece of the backup that a painter sends; it says how many bytes are there.
func (s *Studio) Receive(ctx context.Context, painter store.Painter, at, bytes int64, data []byte) (have int64, err error) {
	return s.store.Receive(ctx, painter.ID, at, bytes, data)
}

// Sent says that the backup that a painter sends is here. The error is an input.Error where it is not.
func (s *Studio) Sent(ctx context.Context, painter store.Painter) error {
	_, _, err := s.store.Uploaded(ctx, painter.ID)
	if errors.Is(err, store.ErrNotFound) {
		return input.Errorf("The backup is not here, or not all of it: send it again.")
	}
	return err
}

// Restored is what taking a backup in does.
type Restored = store.Restored

// RestoreSent looks at the backup that a painter sent or, if keep, takes it in and lets what was sent go. Said tells how many things
// have been seen to.
func (s *Studio) RestoreSent(ctx context.Context, painter store.Painter, keep bool, said func(done, of int)) (out Restored, err error) {
	from, size, err := s.store.Uploaded(ctx, painter.ID)
	if err != nil {
		return out, err
	}
	out, err = s.RestoreBackup(ctx, painter, from, size, keep, said)
	if err == nil && keep {
		err = s.store.DropUpload(ctx, painter.ID)
	}
	return out, err
}

// DropSent lets the backup go that a painter sent.
func (s *Studio) DropSent(ctx context.Context, painter store.Painter) error {
	return s.store.DropUpload(ctx, painter.ID)
}
