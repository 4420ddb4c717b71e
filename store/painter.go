package store

import (
	"context"
	"time"
)

// Painter is whoever paints here: a profile that owns everything it makes.
type Painter struct {
	ID             int64
	Name           string
	Demo           bool
	PassphraseHash string
	CreatedAt      time.Time
}

// Painters lists every profile by name, the demo painter first.
func (s *Store) Painters(ctx context.Context) ([]Painter, error) {
	var painters []Painter
	err := s.db.WithContext(ctx).Order("demo desc, lower(name)").Find(&painters).Error
	return painters, err
}
