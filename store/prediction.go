package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"

	"gyrophane/core/journal"
)

// Prediction is what a painter expected of a slot before the cover was lifted,
// and what became of it. It is never changed.
type Prediction struct {
	ID           int64
	UID          string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID    int64
	WheelID      int64
	WheelVersion int
	Home         int // the slot, as it stands clockwise with the first role on top
	HueWord      string
	Verdict      string
	Outcome      journal.SlotOutcome `gorm:"serializer:slot_outcome"` // as computed that day
	CreatedAt    time.Time
}

// AddPredictions keeps predictions for a version of a wheel, all or none. A slot is
// predicted once for each version.
func (s *Store) AddPredictions(ctx context.Context, painter, wheel int64, version int, predictions []Prediction) error {
	err := s.transaction(ctx, func(tx *gorm.DB) error {
		w, err := ownWheel(tx, painter, wheel)
		if err != nil {
			return err
		}
		if w.Version != version {
			return Refusal{"This wheel was changed in the meantime; look at it again before predicting."}
		}
		for _, p := range predictions {
			p.PainterID, p.WheelID, p.WheelVersion = painter, wheel, version
			if err := tx.Create(&p).Error; err != nil {
				return err
			}
		}
		return nil
	})
	if errors.Is(err, gorm.ErrDuplicatedKey) {
		return Refusal{"This was predicted before, and the cover has been lifted; change the paints and predict again."}
	}
	return err
}

// Predictions lists what was predicted of a wheel, the newest first.
func (s *Store) Predictions(ctx context.Context, painter, wheel int64) ([]Prediction, error) {
	var out []Prediction
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and wheel_id = ?", painter, wheel).Order("id desc").Limit(listedVersions).Find(&out).Error
	})
	return out, err
}
