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
	AtHome    bool   // begun over the home network, and good there alone
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

// deviceName is a browser in words, or nothing where they cannot be kept.
func deviceName(words string) string {
	line, err := text.Line("the browser", words, longestDevice)
	if err != nil {
		return ""
	}
	return line
}

// moment is a time as the database keeps it.
func moment(t time.Time) time.Time { return t.UTC().Truncate(time.Microsecond) }

// BeginSession signs the painter of a session in, under a token that nobody can guess.
func (s *Store) BeginSession(ctx context.Context, token string, one Session) error {
	one.TokenHash = hashOf(token)
	one.Device = deviceName(one.Device)
	return s.owned(ctx, one.PainterID, func(tx *gorm.DB) error { return begin(tx, one) })
}

// begin keeps a session of a painter whose changes take turns.
func begin(tx *gorm.DB, one Session) error {
	one.SeenAt, one.ExpiresAt = tx.NowFunc(), moment(one.ExpiresAt)
	if err := tx.Create(&one).Error; err != nil {
		return err
	}
	newest := tx.Model(&Session{}).Select("id").Where("painter_id = ?", one.PainterID).Order("seen_at desc, id desc").Limit(mostSessions)
	return tx.Where("painter_id = ? and (expires_at <= ? or id not in (?))", one.PainterID, one.SeenAt, newest).Delete(&Session{}).Error
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

// GoneSession was a browser of a painter who was deleted since: it is told so, that what waits there be saved.
type GoneSession struct {
	TokenHash []byte `gorm:"primaryKey"`
	Was       int64  // the id that the painter had
	ExpiresAt time.Time
}

// GoneBy is the id that the painter of a session had who was deleted since; 0 where there was none.
func (s *Store) GoneBy(ctx context.Context, token string) (was int64, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&GoneSession{}).Where("token_hash = ? and expires_at > ?", hashOf(token), db.NowFunc()).Limit(1).Pluck("was", &was).Error
	})
	return was, err
}
