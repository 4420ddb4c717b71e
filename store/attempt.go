package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// Rate is how often something may be tried for long, and how many times at once.
type Rate struct {
	Every time.Duration
	Burst int
}

// Attempt is whoever tried something lately, by whatever process on the database, and until when that is paid back at the rate at
// which it may be tried. Who it is cannot be read off it.
type Attempt struct {
	WhoHash []byte `gorm:"primaryKey"`
	PaidAt  time.Time
}

// Old attempts go a few at a time, with each that is counted.
const attemptsTidied = 10

// Try counts an attempt, and says whether it is not too many [the generic cell rate algorithm, ITU-T I.371].
func (s *Store) Try(ctx context.Context, who string, r Rate) (allowed bool, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Exec("delete from attempts where who_hash in (select who_hash from attempts where paid_at < now() order by paid_at limit ? for update skip locked)", attemptsTidied).Error; err != nil {
			return err
		}
		every := r.Every.Seconds()
		counted := db.Exec(`insert into attempts (paid_at, who_hash) values (now() + ? * interval '1 second', ?)
			on conflict (who_hash) do update set paid_at = greatest(attempts.paid_at, now()) + ? * interval '1 second'
			where greatest(attempts.paid_at, now()) + ? * interval '1 second' <= now() + ? * interval '1 second'`,
			every, hashOf(who), every, every, every*float64(r.Burst))
		allowed = counted.RowsAffected == 1
		return counted.Error
	})
	return allowed && err == nil, err
}

// Spent says that no more attempts are allowed just now, without counting.
func (s *Store) Spent(ctx context.Context, who string, r Rate) (spent bool, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		every := r.Every.Seconds()
		return db.Raw("select exists (select from attempts where who_hash = ? and greatest(paid_at, now()) + ? * interval '1 second' > now() + ? * interval '1 second')", hashOf(who), every, every*float64(r.Burst)).Scan(&spent).Error
	})
	return spent, err
}
