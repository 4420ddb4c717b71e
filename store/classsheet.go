package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// ClassSheet is a sheet of a wheel that a class has painted, with the plan that it was printed by.
type ClassSheet struct {
	ID        int64
	PainterID int64
	WheelID   *int64
	Name      string
	Plan      SittingPlan `gorm:"serializer:sitting_plan"`
	CreatedAt time.Time
}

// ClassRead is what was read of one pupil's sheet; whose it is, is not known, and its photo is not kept.
type ClassRead struct {
	ID           int64
	ClassSheetID int64
	PainterID    int64
	Labs         []*[3]float64 `gorm:"serializer:json"` // CIELAB by the places of the plan; nil where nothing was read
	CreatedAt    time.Time
}

// Of painted sheets.
const (
	mostClassSheets = 100 // of a painter
	mostClassReads  = 60  // of a sheet
)

// NewClassSheet keeps a sheet that a class is to be read on.
func (s *Store) NewClassSheet(ctx context.Context, painter int64, one ClassSheet) (ClassSheet, error) {
	one.PainterID = painter
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&ClassSheet{}).Where("painter_id = ?", painter).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostClassSheets {
			return Refusal{fmt.Sprintf("You keep %d sheets of classes, which is the most: delete one first.", mostClassSheets)}
		}
		if one.WheelID != nil {
			if _, err := ownWheel(tx, painter, *one.WheelID); err != nil {
				return err
			}
		}
		return tx.Create(&one).Error
	})
	return one, err
}

// ClassSheets are a painter's, the newest first, and how many pupils' were read of each.
func (s *Store) ClassSheets(ctx context.Context, painter int64) (out []ClassSheet, read map[int64]int, err error) {
	read = map[int64]int{}
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("painter_id = ?", painter).Order("id desc").Find(&out).Error; err != nil {
			return err
		}
		rows, err := db.Raw("select class_sheet_id, count(*) from class_reads where painter_id = ? group by class_sheet_id", painter).Rows()
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			var id int64
			var n int
			if err := rows.Scan(&id, &n); err != nil {
				return err
			}
			read[id] = n
		}
		return rows.Err()
	})
	return out, read, err
}

// ClassSheet is one of a painter's, and what was read of it, the first first.
func (s *Store) ClassSheet(ctx context.Context, painter, id int64) (out ClassSheet, read []ClassRead, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("id = ? and painter_id = ?", id, painter).Take(&out).Error; err != nil {
			return known(err)
		}
		return db.Where("class_sheet_id = ? and painter_id = ?", id, painter).Order("id").Find(&read).Error
	})
	return out, read, err
}

// AddClassRead keeps what was read of a pupil's sheet.
func (s *Store) AddClassRead(ctx context.Context, painter, id int64, labs []*[3]float64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := tx.Select("id").Where("id = ? and painter_id = ?", id, painter).Take(&ClassSheet{}).Error; err != nil {
			return known(err)
		}
		var n int64
		if err := tx.Model(&ClassRead{}).Where("class_sheet_id = ?", id).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostClassReads {
			return Refusal{fmt.Sprintf("%d sheets were read, which is the most of a class: begin another.", mostClassReads)}
		}
		return tx.Create(&ClassRead{ClassSheetID: id, PainterID: painter, Labs: labs}).Error
	})
}

// DropClassRead takes away what was read of one pupil's sheet; ErrNotFound where it is not there.
func (s *Store) DropClassRead(ctx context.Context, painter, id, read int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		return dropKept(tx.Where("class_sheet_id = ?", id), &ClassRead{}, painter, read)
	})
}

// DropClassSheet takes a sheet away with all that was read of it; ErrNotFound where it is not there.
func (s *Store) DropClassSheet(ctx context.Context, painter, id int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error { return dropKept(tx, &ClassSheet{}, painter, id) })
}
