package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"

	"gyrophane/core/reach"
)

// WantedColour is a colour that a painter's pictures need.
type WantedColour struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	Name      string
	Colour    string // as it was written
	CreatedAt time.Time
}

// Wanted lists a painter's wanted colours, the oldest first.
func (s *Store) Wanted(ctx context.Context, painter int64) ([]WantedColour, error) {
	var out []WantedColour
	err := s.with(ctx, func(db *gorm.DB) error { return db.Where("painter_id = ?", painter).Order("id").Find(&out).Error })
	return out, err
}

// AddWanted keeps more wanted colours, all or none.
func (s *Store) AddWanted(ctx context.Context, painter int64, more []WantedColour) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		var there int64
		if err := tx.Model(&WantedColour{}).Where("painter_id = ?", painter).Count(&there).Error; err != nil {
			return err
		}
		if there+int64(len(more)) > reach.MostWanted {
			return Refusal{fmt.Sprintf("%d wanted colours are as many as are kept: take some away first.", reach.MostWanted)}
		}
		for _, w := range more {
			w.PainterID = painter
			if err := tx.Create(&w).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// RemoveWanted takes a wanted colour away; ErrNotFound when it is not there, or
// another painter's.
func (s *Store) RemoveWanted(ctx context.Context, painter, id int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return dropKept(db, &WantedColour{}, painter, id) })
}
