package store

import (
	"context"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

const demoName = "Tide-pool studio"

var demoSettings = Settings{Spacing: "hue", Medium: "acrylic", Light: "D65", Judged: "dry"}

// demoWheels are the triads of a made-up studio that paints panels of
// tide-pool life; the last is the one shown first.
var demoWheels = []Content{
	{Name: "Kelp and wet stone", Snapshot: Roles{"PY43", "PR83", "PB60"}, Settings: demoSettings},
	{Name: "Sea lettuce and mussel", Snapshot: Roles{"PY184", "PR122", "PB15:3"}, Settings: demoSettings},
	{Name: "Starfish and anemone", Snapshot: Roles{"PY65", "PR254", "PB29"}, Settings: demoSettings},
}

// SeedDemo makes the made-up demo studio, once: what is there already stays as
// it is, edited or removed.
func (s *Store) SeedDemo(ctx context.Context) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p := Painter{Name: demoName, Demo: true}
		made := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p)
		if made.Error != nil || made.RowsAffected == 0 {
			return made.Error
		}
		for _, c := range demoWheels {
			if _, err := createWheel(tx, p.ID, c); err != nil {
				return err
			}
		}
		return nil
	})
}
