package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// SittingPhoto is a photo of a painted sheet: its pixels alone, nothing of where and by
// what it was taken.
type SittingPhoto struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	SittingID int64
	JPEG      []byte `gorm:"column:jpeg"`
	Width     int
	Height    int
	Standin   bool // rendered, and not taken
	CreatedAt time.Time
}

// SittingReading is what was read of one place of a sheet. It is never changed: what is
// read again is another.
type SittingReading struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	SittingID int64
	Region    string
	L, A, B   float64
	Spectrum  []float64 `gorm:"serializer:json"`
	Source    string
	Wet       bool
	Medium    string
	Minutes   float64
	Spread    float64
	Doubt     string
	OnPhoto   OnPhoto `gorm:"serializer:on_photo"`
	Told      string  `gorm:"default:null"` // by which the page knows it: told again it is kept once; empty where it says none
	CreatedAt time.Time
}

// How much is kept of a sitting.
const (
	mostPhotos   = 24
	mostReadings = 5000
)

// Room is how many bytes photos may take up, and how much of the disk is left free.
type Room struct {
	OfPainter, OfAll int64
	Free             uint64
}

// UsualRoom is the room that a store gives photos unless it is told otherwise.
var UsualRoom = Room{OfPainter: 500 << 20, OfAll: 20 << 30, Free: 1 << 30}

// holds says why there is no room for so many bytes more of a painter's photos; nil where
// there is.
func (r Room) holds(tx *gorm.DB, painter, more int64, free func() (bytes uint64, known bool)) error {
	var own, all int64
	const size = "coalesce(sum(octet_length(jpeg)), 0)"
	if err := tx.Model(&SittingPhoto{}).Where("painter_id = ?", painter).Select(size).Scan(&own).Error; err != nil {
		return err
	}
	if own+more > r.OfPainter {
		return Refusal{fmt.Sprintf("Your photos take up %d MB, and %d MB is the most: delete some that were read, and what was read of them stays.", own>>20, r.OfPainter>>20)}
	}
	if err := tx.Model(&SittingPhoto{}).Select(size).Scan(&all).Error; err != nil {
		return err
	}
	if all+more > r.OfAll {
		return Refusal{"This server keeps no more photos for now: its room for them is full. Ask whoever looks after it; readings by eye and from a file go on."}
	}
	if left, known := free(); known && left < r.Free+uint64(more) {
		return Refusal{"The disk of this server is nearly full, so that no photo is kept for now. Ask whoever looks after it; all else goes on."}
	}
	return nil
}

// ofSitting changes what belongs to a painter's sitting, all or none, and lets those know who watch it.
func (s *Store) ofSitting(ctx context.Context, painter, id int64, change func(tx *gorm.DB) error) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := tx.Omit("plan").Where("id = ? and painter_id = ?", id, painter).Take(&Sitting{}).Error; err != nil {
			return known(err)
		}
		if err := change(tx); err != nil {
			return err
		}
		return tell(tx, painter, id)
	})
}

// AddPhoto keeps a photo of a painter's sitting.
func (s *Store) AddPhoto(ctx context.Context, painter, sitting int64, p SittingPhoto) (SittingPhoto, error) {
	p.PainterID, p.SittingID = painter, sitting
	err := s.ofSitting(ctx, painter, sitting, func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&SittingPhoto{}).Where("sitting_id = ?", sitting).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostPhotos {
			return Refusal{fmt.Sprintf("A sitting keeps %d photos: delete one first.", mostPhotos)}
		}
		if err := s.Room.holds(tx, painter, int64(len(p.JPEG)), s.freeDisk); err != nil {
			return err
		}
		return tx.Create(&p).Error
	})
	return p, err
}

// Photos lists the photos of a painter's sitting, the first first, without their pixels.
func (s *Store) Photos(ctx context.Context, painter, sitting int64) (out []SittingPhoto, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Omit("jpeg").Where("sitting_id = ? and painter_id = ?", sitting, painter).Order("id").Find(&out).Error
	})
	return out, err
}

// Photo is a photo of a painter's sitting; ErrNotFound where it is not there, or another
// painter's.
func (s *Store) Photo(ctx context.Context, painter, sitting, id int64) (out SittingPhoto, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return known(db.Where("id = ? and sitting_id = ? and painter_id = ?", id, sitting, painter).Take(&out).Error)
	})
	return out, err
}

// DropPhoto deletes a photo; what was read of it stays.
func (s *Store) DropPhoto(ctx context.Context, painter, sitting, id int64) error {
	return s.ofSitting(ctx, painter, sitting, func(tx *gorm.DB) error {
		return dropKept(tx.Where("sitting_id = ?", sitting), &SittingPhoto{}, painter, id)
	})
}

// AddReadings keeps what was read of a painter's sitting, all or none.
func (s *Store) AddReadings(ctx context.Context, painter, sitting int64, more []SittingReading) error {
	return s.ofSitting(ctx, painter, sitting, func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&SittingReading{}).Where("sitting_id = ?", sitting).Count(&n).Error; err != nil {
			return err
		}
		if n+int64(len(more)) > mostReadings {
			return Refusal{fmt.Sprintf("A sitting keeps %d readings, and has them.", mostReadings)}
		}
		for _, r := range more {
			r.PainterID, r.SittingID = painter, sitting
			if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&r).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// Readings lists what was read of a painter's sitting, the first first.
func (s *Store) Readings(ctx context.Context, painter, sitting int64) (out []SittingReading, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Where("sitting_id = ? and painter_id = ?", sitting, painter).Order("id").Find(&out).Error
	})
	return out, err
}

// ReadingCount is how many readings a sitting has, and the last of them.
type ReadingCount struct {
	SittingID      int64
	Readings, Last int64
}

// CountReadings counts the readings of a painter's sittings, by sitting.
func (s *Store) CountReadings(ctx context.Context, painter int64) (map[int64]ReadingCount, error) {
	var all []ReadingCount
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&SittingReading{}).Where("painter_id = ?", painter).Select("sitting_id, count(*) as readings, max(id) as last").Group("sitting_id").Scan(&all).Error
	})
	out := map[int64]ReadingCount{}
	for _, one := range all {
		out[one.SittingID] = one
	}
	return out, err
}
