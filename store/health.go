package store

import (
	"context"
	"time"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// Health is how a database stands, whether its tables are up to date or not.
type Health struct {
	Server   string    // version of PostgreSQL
	Now      time.Time // by its clock
	Empty    bool      // no tables are there yet
	Pending  string    // the migration that it waits for; empty for none
	Wrong    error     // what is wrong with its tables; nil for nothing
	ReadOnly bool
	Held     int64 // bytes
	Aside    int64 // rows that were put aside
}

// Health looks at a database; nothing is changed.
func (s *Store) Health(ctx context.Context) (out Health, err error) {
	table := gormigrate.DefaultOptions.TableName
	if out.Pending, err = s.Pending(ctx); err != nil {
		return out, err
	}
	if out.Held, err = s.Held(ctx); err != nil {
		return out, err
	}
	if out.ReadOnly, err = s.readOnly(ctx); err != nil {
		return out, err
	}
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Raw("select current_setting('server_version')").Scan(&out.Server).Error; err != nil {
			return err
		}
		if err := db.Raw("select clock_timestamp()").Scan(&out.Now).Error; err != nil {
			return err
		}
		return db.Raw("select to_regclass(?) is null", table).Scan(&out.Empty).Error
	})
	if err != nil || out.Empty {
		return out, err
	}
	if _, out.Wrong = s.pending(ctx, table); out.Wrong == nil && out.Pending == "" {
		if out.Wrong = s.complete(ctx); out.Wrong == nil {
			err = s.with(ctx, func(db *gorm.DB) error { return db.Model(&PutAside{}).Count(&out.Aside).Error })
		}
	}
	return out, err
}
