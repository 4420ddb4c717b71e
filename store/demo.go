package store

import (
	"context"

	"gorm.io/gorm/clause"
)

// SeedDemo makes the made-up demo studio. What is there already stays as it is.
func (s *Store) SeedDemo(ctx context.Context) error {
	p := Painter{Name: "Tide-pool studio", Demo: true}
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&p).Error
}
