package store

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"fmt"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"golang.org/x/crypto/argon2"
	"gorm.io/gorm"

	"gyrophane/core/text"
)

// Painter is whoever paints here: a profile that owns everything it makes.
type Painter struct {
	ID             int64
	UID            string `gorm:"default:gen_random_uuid()"` // of this profile: changes are counted under it
	Name           string
	Demo           bool
	PassphraseHash string // argon2id, empty where none is asked for
	WarmBlue       string `gorm:"default:violet"` // the neighbour that the warm blue leans to
	OldBox         bool   // the tubes of the box are old and mixed, and differ more from the library's
	CreatedAt      time.Time
}

// Refusal is a sentence about what was asked for and cannot be: what, where,
// and what to do.
type Refusal struct{ Sentence string }

func (r Refusal) Error() string { return r.Sentence }

// Limits of what a painter may keep.
const (
	longestName       = 80
	shortestPass      = 8
	longestPass       = 200
	mostPainters      = 500
	mostWheels        = 300
	keptRefusedWrites = 20
	listedVersions    = 60
)

// CleanName trims a name and refuses what cannot be one: 1 to 80 characters,
// all of which can be shown.
func CleanName(what, name string) (string, error) {
	name, err := text.Line("the name of the "+what, name, longestName)
	if err != nil {
		return "", refused(err)
	}
	if name == "" {
		return "", Refusal{"Give the " + what + " a name."}
	}
	return name, nil
}

// refused is what the core will not have, as a sentence.
func refused(err error) Refusal {
	return Refusal{text.UpperFirst(err.Error()) + "."}
}

// Painters lists every profile by name, the demo painter first.
func (s *Store) Painters(ctx context.Context) ([]Painter, error) {
	var painters []Painter
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Order("demo desc, lower(name)").Limit(mostPainters).Find(&painters).Error
	})
	return painters, err
}

// PainterByID finds a profile.
func (s *Store) PainterByID(ctx context.Context, id int64) (Painter, error) {
	return s.onePainter(ctx, "id = ?", id)
}

// PainterByName finds a profile by its name, in upper or lower case.
func (s *Store) PainterByName(ctx context.Context, name string) (Painter, error) {
	name, err := CleanName("painter", name)
	if err != nil {
		return Painter{}, ErrNotFound // nobody has such a name
	}
	return s.onePainter(ctx, "lower(name) = lower(?)", name)
}

func (s *Store) onePainter(ctx context.Context, where string, value any) (Painter, error) {
	var p Painter
	err := s.with(ctx, func(db *gorm.DB) error { return db.Where(where, value).Take(&p).Error })
	return p, known(err)
}

// CreatePainter makes a profile. The passphrase may be empty.
func (s *Store) CreatePainter(ctx context.Context, name, passphrase string) (Painter, error) {
	name, err := CleanName("painter", name)
	if err != nil {
		return Painter{}, err
	}
	p := Painter{Name: name}
	if passphrase != "" {
		if p.PassphraseHash, err = hashPassphrase(passphrase); err != nil {
			return Painter{}, err
		}
	}
	err = s.transaction(ctx, func(tx *gorm.DB) error {
		// Painters are counted and added one after the other.
		if err := tx.Exec("select pg_advisory_xact_lock(?)", paintersLock).Error; err != nil {
			return err
		}
		var n int64
		if err := tx.Model(&Painter{}).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostPainters {
			return Refusal{fmt.Sprintf("There are %d painters here already, which is the most.", mostPainters)}
		}
		return tx.Create(&p).Error
	})
	if errors.Is(err, gorm.ErrDuplicatedKey) {
		return Painter{}, Refusal{fmt.Sprintf("There is a painter named %s already; choose another name.", name)}
	}
	return p, err
}

// SetPassphrase gives a profile a passphrase, or another one; an empty one
// takes it away.
func (s *Store) SetPassphrase(ctx context.Context, painter int64, passphrase string) (Painter, error) {
	hash := ""
	if passphrase != "" {
		var err error
		if hash, err = hashPassphrase(passphrase); err != nil {
			return Painter{}, err
		}
	}
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		done := tx.Model(&Painter{}).Where("id = ? and not demo", painter).Update("passphrase_hash", hash)
		if done.Error != nil {
			return done.Error
		}
		if done.RowsAffected == 0 {
			return Refusal{"The demo painter is everybody's and has no passphrase; make a painter of your own."}
		}
		// Whoever came in with the one before has to say the new one.
		return tx.Where("painter_id = ?", painter).Delete(&Session{}).Error
	})
	if err != nil {
		return Painter{}, err
	}
	return s.PainterByID(ctx, painter)
}

// The cost of argon2id: the second recommended option of RFC 9106.
const (
	argonTime   = 3
	argonMemory = 64 << 10
	argonLanes  = 2
)

// argonTurns bounds how many passphrases are worked on at once, and with it
// the memory they take.
var argonTurns = make(chan struct{}, 2)

// paintersLock is the advisory lock under which painters are counted.
const paintersLock = 0x6779726f01

func argon(passphrase string, salt []byte) []byte {
	argonTurns <- struct{}{}
	defer func() { <-argonTurns }()
	return argon2.IDKey([]byte(passphrase), salt, argonTime, argonMemory, argonLanes, 32)
}

func hashPassphrase(passphrase string) (string, error) {
	if n := utf8.RuneCountInString(passphrase); n < shortestPass || len(passphrase) > longestPass {
		return "", Refusal{fmt.Sprintf("A passphrase has %d to %d characters.", shortestPass, longestPass)}
	}
	salt := make([]byte, 16)
	if _, err := rand.Read(salt); err != nil {
		return "", err
	}
	enc := base64.RawStdEncoding
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, argonMemory, argonTime, argonLanes,
		enc.EncodeToString(salt), enc.EncodeToString(argon(passphrase, salt))), nil
}

// nobodysHash opens with nothing, and takes as long to find that out as another.
var nobodysHash = sync.OnceValue(func() string {
	enc := base64.RawStdEncoding
	return "$argon2id$v=19$m=65536,t=3,p=2$" + enc.EncodeToString(make([]byte, 16)) + "$" + enc.EncodeToString(make([]byte, 31))
})

// Opens says whether a passphrase is this profile's. A profile without one opens
// with none. For a passphrase that somebody gives it takes the same time whether
// the profile has one or is nobody's at all (the zero Painter), so that nobody
// learns from it who paints here.
func (p Painter) Opens(passphrase string) bool {
	hash := p.PassphraseHash
	if hash == "" {
		if passphrase == "" {
			return p.ID != 0
		}
		hash = nobodysHash()
	}
	if len(passphrase) > longestPass {
		return false
	}
	fields := strings.Split(hash, "$")
	if len(fields) != 6 {
		return false
	}
	salt, err := base64.RawStdEncoding.DecodeString(fields[4])
	if err != nil {
		return false
	}
	want, err := base64.RawStdEncoding.DecodeString(fields[5])
	return err == nil && subtle.ConstantTimeCompare(want, argon(passphrase, salt)) == 1
}

// known turns the database's "no such row" into the store's.
func known(err error) error {
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return ErrNotFound
	}
	return err
}

// DropPainter takes a painter away with all that is the painter's, in one transaction: also what was put aside.
func (s *Store) DropPainter(ctx context.Context, painter int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := tx.Where("content->>'painter_id' = ?", fmt.Sprint(painter)).Delete(&PutAside{}).Error; err != nil {
			return err
		}
		if err := tx.Where("expires_at <= ?", tx.NowFunc()).Delete(&GoneSession{}).Error; err != nil {
			return err
		}
		if err := tx.Exec("insert into gone_sessions (token_hash, was, expires_at) select token_hash, painter_id, expires_at from sessions where painter_id = ?", painter).Error; err != nil {
			return err
		}
		return tx.Where("id = ?", painter).Delete(&Painter{}).Error // all else goes with it
	})
}

// RenewProfiles gives every painter's profile another lasting id, where the database is a copy of one that may live on: what
// is changed in the one and in the other is then counted apart.
func (s *Store) RenewProfiles(ctx context.Context) (painters int64, err error) {
	err = s.transaction(ctx, func(tx *gorm.DB) error {
		done := tx.Exec("update painters set uid = gen_random_uuid()")
		painters = done.RowsAffected
		return done.Error
	})
	return painters, err
}
