package store

import (
	"context"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

const demoName = "Tide-pool studio"

// SeedDemo makes the made-up demo studio with its wheels and its box, each
// once: what is there already stays as it is, edited or removed.
func (s *Store) SeedDemo(ctx context.Context, wheels []Content, box []NewTube) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p := Painter{Name: demoName, Demo: true}
		made := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p)
		if made.Error != nil {
			return made.Error
		}
		if made.RowsAffected > 0 {
			for _, c := range wheels {
				if _, err := createWheel(tx, p.ID, c); err != nil {
					return err
				}
			}
		}
		// A studio of before there were boxes gets one now.
		err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("demo").Take(&p).Error
		if err != nil || len(box) == 0 {
			return known(err)
		}
		var changes int64
		if err := tx.Model(&BoxChange{}).Where("painter_id = ?", p.ID).Count(&changes).Error; err != nil || changes > 0 {
			return err
		}
		// Undone already, so that nobody empties the box by undoing too far.
		_, err = addTubes(tx, BoxChange{PainterID: p.ID, Summary: "opened the demo box", Undone: true}, box)
		return err
	})
}
