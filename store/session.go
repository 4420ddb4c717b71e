package store

import (
	"context"
	"crypto/sha256"
	"time"

	"gorm.io/gorm"

	"gyrophane/core/text"
)

// Session is one browser in which a painter is signed in. Its token is kept as a
// hash, so that whoever reads the table cannot enter with it.
type Session struct {
	ID        int64
	PainterID int64
	TokenHash []byte
	Device    string // the browser, in words
	CreatedAt time.Time
	SeenAt    time.Time // to within seenEvery
	ExpiresAt time.Time
}

const (
	mostSessions  = 30 // of a painter; the one that was not used for longest goes
	longestDevice = 80
	seenEvery     = 10 * time.Minute
)

func hashOf(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

// BeginSession signs a painter in under a token that nobody can guess.
func (s *Store) BeginSession(ctx context.Context, painter int64, token, device string, expires time.Time) error {
	now := s.db.NowFunc()
	device, err := text.Line("the browser", device, longestDevice)
	if err != nil {
		device = ""
	}
	row := Session{PainterID: painter, TokenHash: hashOf(token), Device: device, SeenAt: now, ExpiresAt: expires.UTC().Truncate(time.Microsecond)}
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		newest := tx.Model(&Session{}).Select("id").Where("painter_id = ?", painter).Order("seen_at desc, id desc").Limit(mostSessions)
		return tx.Where("painter_id = ? and (expires_at <= ? or id not in (?))", painter, now, newest).Delete(&Session{}).Error
	})
}

// BySession finds the session of a token and its painter; ErrNotFound when it
// was ended or has expired.
func (s *Store) BySession(ctx context.Context, token string) (Session, Painter, error) {
	var one Session
	var p Painter
	err := s.with(ctx, func(db *gorm.DB) error {
		now := db.NowFunc()
		if err := db.Where("token_hash = ? and expires_at > ?", hashOf(token), now).Take(&one).Error; err != nil {
			return known(err)
		}
		if err := db.Where("id = ?", one.PainterID).Take(&p).Error; err != nil {
			return known(err)
		}
		if now.Sub(one.SeenAt) > seenEvery {
			// When it was seen is a courtesy: a database that takes no changes just
			// now keeps nobody out.
			db.Model(&Session{}).Where("id = ? and painter_id = ?", one.ID, p.ID).Update("seen_at", now)
		}
		return nil
	})
	return one, p, err
}

// Sessions lists where a painter is signed in, the last used first.
func (s *Store) Sessions(ctx context.Context, painter int64) ([]Session, error) {
	var out []Session
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and expires_at > ?", painter, s.db.NowFunc()).Order("seen_at desc, id desc").Find(&out).Error
	})
	return out, err
}

// EndSession signs a painter out of one browser.
func (s *Store) EndSession(ctx context.Context, painter, id int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return dropKept(db, &Session{}, painter, id) })
}
