package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// What of a painter's can be shown to others.
const (
	ShowsWheel      = "wheel"
	ShowsComparison = "comparison"
	ShowsBox        = "box"
	ShowsSheet      = "sheet" // of a wheel
	ShowsSitting    = "sitting"
)

// Showing shows one thing of a painter's, to be read, to whoever has its token: it is kept as a hash.
type Showing struct {
	ID           int64
	PainterID    int64
	TokenHash    []byte
	Kind         string
	WheelID      *int64
	ComparisonID *int64
	SittingID    *int64
	Sheet        string // which one of the wheel, as the address of its paper says
	Called       string // what it was called when the showing was made
	Medium       string // and how it is looked at
	Light        string
	Judged       string
	Notes        bool // shown too
	Prices       bool
	Photos       bool
	Name         bool   // the painter's
	Live         bool   // it is seen as it is at the time
	Kept         []byte `gorm:"default:null"` // else what is seen, as of the day it was made
	EndsAt       *time.Time
	CreatedAt    time.Time
}

// mostShowings is how many things a painter may show at a time.
const mostShowings = 100

// Thing is the id of what is shown; 0 of the box.
func (s Showing) Thing() int64 {
	for _, id := range []*int64{s.WheelID, s.ComparisonID, s.SittingID} {
		if id != nil {
			return *id
		}
	}
	return 0
}

// NewShowing keeps a showing under a token; ErrNotFound where what it shows is not the painter's.
func (s *Store) NewShowing(ctx context.Context, painter int64, token string, one Showing) (Showing, error) {
	one.PainterID, one.TokenHash = painter, hashOf(token)
	if one.EndsAt != nil {
		ends := moment(*one.EndsAt)
		one.EndsAt = &ends
	}
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := tx.Where("painter_id = ? and ends_at <= ?", painter, tx.NowFunc()).Delete(&Showing{}).Error; err != nil {
			return err
		}
		var n int64
		if err := tx.Model(&Showing{}).Where("painter_id = ?", painter).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostShowings {
			return Refusal{fmt.Sprintf("You show %d things, which is the most: take one back first.", mostShowings)}
		}
		for id, row := range map[*int64]any{one.WheelID: &Wheel{}, one.ComparisonID: &Comparison{}, one.SittingID: &Sitting{}} {
			if id == nil {
				continue
			}
			if err := tx.Select("id").Where("id = ? and painter_id = ?", *id, painter).Take(row).Error; err != nil {
				return known(err)
			}
		}
		return tx.Create(&one).Error
	})
	return one, err
}

// Showings are what a painter shows, the newest first; what has ended is left out.
func (s *Store) Showings(ctx context.Context, painter int64) (out []Showing, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Omit("kept").Where("painter_id = ? and (ends_at is null or ends_at > ?)", painter, db.NowFunc()).Order("id desc").Find(&out).Error
	})
	return out, err
}

// DropShowing takes a showing back; ErrNotFound where it is not there, or another painter's.
func (s *Store) DropShowing(ctx context.Context, painter, id int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error { return dropKept(tx, &Showing{}, painter, id) })
}

// ShowingOf is the showing of a token, without what is kept of it, and whose it is; ErrNotFound where there is none, or none any more.
func (s *Store) ShowingOf(ctx context.Context, token string) (one Showing, of Painter, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Omit("kept").Where("token_hash = ? and (ends_at is null or ends_at > ?)", hashOf(token), db.NowFunc()).Take(&one).Error; err != nil {
			return known(err)
		}
		return known(db.Where("id = ?", one.PainterID).Take(&of).Error)
	})
	return one, of, err
}

// Exhibit is what is kept of a showing as of the day it was made; nil of one that is live.
func (s *Store) Exhibit(ctx context.Context, of Showing) ([]byte, error) {
	var one Showing
	err := s.with(ctx, func(db *gorm.DB) error {
		return known(db.Select("kept").Where("id = ? and painter_id = ?", of.ID, of.PainterID).Take(&one).Error)
	})
	return one.Kept, err
}

// shown is the channel on which the database tells that something of a painter's may look different to those it is shown to.
const shown = "gyrophane_shown"

// ListenShown hears of the painters of whose things something changed that may be shown, as Hear does.
func (s *Store) ListenShown(ctx context.Context, begun func(), heard func(painter int64)) {
	s.Hear(ctx, shown, begun, func(said string) {
		var painter int64
		if n, err := fmt.Sscanf(said, "%d", &painter); err == nil && n == 1 {
			heard(painter)
		}
	})
}
