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
// now, or is stopping or not set up yet: trying again later may help.
func Unavailable(err error) bool {
	var pg *pgconn.PgError
	if errors.As(err, &pg) {
		// Connection trouble, too few resources, shutting down, or no tables yet.
		for _, class := range []string{"08", "53", "57", "42P01"} {
			if strings.HasPrefix(pg.Code, class) {
				return true
			}
		}
		return false
	}
	var connect *pgconn.ConnectError
	var network net.Error
	return errors.As(err, &connect) || errors.As(err, &network) || errors.Is(err, driver.ErrBadConn) ||
		errors.Is(err, context.DeadlineExceeded) || pgconn.SafeToRetry(err) || strings.Contains(err.Error(), "conn closed") ||
		strings.Contains(err.Error(), "unexpected EOF")
}
