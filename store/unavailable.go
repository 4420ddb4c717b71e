package store

import (
	"context"
	"database/sql/driver"
	"errors"
	"net"
	"strings"

	"github.com/jackc/pgx/v5/pgconn"
)

// Unavailable says that an error means the database cannot be reached just
// now, or is stopping or not set up yet: trying again later may help. That the
// time of whoever asked ran out, or that he left, is not the database's doing.
func Unavailable(err error) bool {
	if err == nil {
		return false
	}
	var pg *pgconn.PgError
	if errors.As(err, &pg) {
		// Connection trouble, too few resources, shutting down, or no such table or column, for
		// there are none yet, or somebody changed them under the running program.
		for _, class := range []string{"08", "53", "57P", "42P01", "42703"} {
			if strings.HasPrefix(pg.Code, class) {
				return true
			}
		}
		return false
	}
	var connect *pgconn.ConnectError
	if errors.Is(err, ErrSilent) || errors.As(err, &connect) {
		return true
	}
	if errors.Is(err, context.DeadlineExceeded) || errors.Is(err, context.Canceled) {
		return false
	}
	var network net.Error
	return errors.As(err, &network) || errors.Is(err, driver.ErrBadConn) ||
		pgconn.SafeToRetry(err) || strings.Contains(err.Error(), "conn closed") || strings.Contains(err.Error(), "unexpected EOF")
}

// ReadOnly says that an error means the database takes no changes just now; what
// is kept can still be read.
func ReadOnly(err error) bool {
	var pg *pgconn.PgError
	return errors.As(err, &pg) && pg.Code == "25006"
}
