package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// DeviceCode lets one more device of a painter come in, once: made in one browser, it is spent in
// another, and the first says whether that may. A painter has one at a time; the code and what the
// other browser will be signed in by are kept as hashes.
type DeviceCode struct {
	PainterID int64 `gorm:"primaryKey"`
	CodeHash  []byte
	TokenHash []byte // of the session that is asked for; nil until the code is spent
	Device    string // the browser that asks, in words
	Check     string // what both browsers show, so that one is not taken for another's
	AtHome    bool   // it asks over the home network
	ExpiresAt time.Time
}

// Spent says that a device has come with the code and waits to be let in.
func (c DeviceCode) Spent() bool { return c.TokenHash != nil }

// ErrSpent says that a code has been used already.
var ErrSpent = errors.New("the code has been used")

// NewDeviceCode keeps a code of a painter instead of the one before.
func (s *Store) NewDeviceCode(ctx context.Context, painter int64, code string, expires time.Time) error {
	row := DeviceCode{PainterID: painter, CodeHash: hashOf(code), ExpiresAt: moment(expires)}
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error
	})
}

// PainterOfCode finds a code that is good still and whose it is; ErrNotFound when there is none.
func (s *Store) PainterOfCode(ctx context.Context, code string) (one DeviceCode, p Painter, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("code_hash = ? and expires_at > ?", hashOf(code), db.NowFunc()).Take(&one).Error; err != nil {
			return known(err)
		}
		return known(db.Where("id = ?", one.PainterID).Take(&p).Error)
	})
	return one, p, err
}

// SpendDeviceCode asks with a code for a session under a token, for as long as until; ErrSpent when
// somebody has before.
func (s *Store) SpendDeviceCode(ctx context.Context, code, token string, asked DeviceCode) error {
	one, _, err := s.PainterOfCode(ctx, code)
	if err != nil {
		return err
	}
	return s.owned(ctx, one.PainterID, func(tx *gorm.DB) error {
		done := tx.Model(&DeviceCode{}).
			Where("painter_id = ? and code_hash = ? and token_hash is null and expires_at > ?", one.PainterID, one.CodeHash, tx.NowFunc()).
			Updates(map[string]any{"token_hash": hashOf(token), "device": deviceName(asked.Device), "check": asked.Check, "at_home": asked.AtHome, "expires_at": moment(asked.ExpiresAt)})
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrSpent
		}
		return done.Error
	})
}

// DeviceCodeOf is a painter's code that is good still; ErrNotFound when there is none.
func (s *Store) DeviceCodeOf(ctx context.Context, painter int64) (one DeviceCode, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return known(db.Where("painter_id = ? and expires_at > ?", painter, db.NowFunc()).Take(&one).Error)
	})
	return one, err
}

// AnswerDevice lets the device in that shows a check, until then, or sends it away; ErrNotFound when
// none waits that does.
func (s *Store) AnswerDevice(ctx context.Context, painter int64, check string, letIn bool, until time.Time) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		var one DeviceCode
		waits := tx.Where(`painter_id = ? and "check" = ? and token_hash is not null and expires_at > ?`, painter, check, tx.NowFunc())
		if err := waits.Take(&one).Error; err != nil {
			return known(err)
		}
		if err := tx.Where("painter_id = ?", painter).Delete(&DeviceCode{}).Error; err != nil || !letIn {
			return err
		}
		return begin(tx, Session{PainterID: painter, TokenHash: one.TokenHash, Device: one.Device, AtHome: one.AtHome, ExpiresAt: until})
	})
}

// EndDeviceCode takes a painter's code back, and whoever waits with it away.
func (s *Store) EndDeviceCode(ctx context.Context, painter int64) error {
	return s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ?", painter).Delete(&DeviceCode{}).Error
	})
}
