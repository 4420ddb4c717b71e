package api

import (
	"context"
	"fmt"
	"net"
	"net/netip"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/gofiber/fiber/v3"
	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/time/rate"
)

// clientAddress is where a request comes from: the other end of its connection
// or, when that is a proxy which is trusted, the last address of X-Forwarded-For
// that is not one of the proxies'. What stands before it anybody could have
// written there.
func (s *Server) clientAddress(c fiber.Ctx) netip.Addr {
	peer := addressOf(c.RequestCtx().RemoteAddr().String())
	if !s.trusts(peer) {
		return peer
	}
	hops := strings.Split(strings.Join(c.GetReqHeaders()[fiber.HeaderXForwardedFor], ","), ",")
	for _, hop := range slices.Backward(hops) {
		a, err := netip.ParseAddr(strings.TrimSpace(hop))
		if err != nil {
			break // nobody trusted wrote this
		}
		if peer = a.Unmap(); !s.trusts(peer) {
			break
		}
	}
	return peer
}

func (s *Server) trusts(a netip.Addr) bool {
	return slices.ContainsFunc(s.TrustedProxies, func(p netip.Prefix) bool { return p.Contains(a) })
}

func addressOf(text string) netip.Addr {
	if host, _, err := net.SplitHostPort(text); err == nil {
		text = host
	}
	a, err := netip.ParseAddr(text)
	if err != nil {
		return netip.IPv6Unspecified()
	}
	return a.Unmap().WithZone("")
}

// household is what one client may change its address within: IPv6 networks are
// given out by 64 bits.
func household(a netip.Addr) string {
	if a.Is6() {
		p, err := a.Prefix(64)
		if err == nil {
			return p.String()
		}
	}
	return a.String()
}

// ParseProxies reads addresses and networks with commas between: the proxies
// that are believed about where a request comes from.
func ParseProxies(list string) (out []netip.Prefix, err error) {
	for _, one := range strings.FieldsFunc(list, func(r rune) bool { return r == ',' || r == ' ' }) {
		p, err := netip.ParsePrefix(one)
		if err != nil {
			a, err := netip.ParseAddr(one)
			if err != nil {
				return nil, fmt.Errorf("%.60q is no address of a proxy: write 10.0.0.5, or a network like 10.0.0.0/24", one)
			}
			p = netip.PrefixFrom(a.Unmap(), a.Unmap().BitLen())
		}
		out = append(out, p.Masked())
	}
	return out, nil
}

// pace is how often something may be done by each of many: so many times a
// second for long, and so many at once.
type pace struct {
	often rate.Limit
	burst int
	of    *lru.Cache[string, *rate.Limiter]
}

// mostPaced is how many are remembered; whoever was not there for longest is
// forgotten first.
const mostPaced = 20_000

func newPace(every time.Duration, burst int) *pace {
	return &pace{rate.Every(every), burst, lastUsed[string, *rate.Limiter](mostPaced)}
}

func (p *pace) limiter(who string) *rate.Limiter {
	fresh := rate.NewLimiter(p.often, p.burst)
	if known, there, _ := p.of.PeekOrAdd(who, fresh); there {
		p.of.Get(who) // and is remembered for longer
		return known
	}
	return fresh
}

// allows counts one more, and says whether that is not too many.
func (p *pace) allows(who string) bool { return p.limiter(who).Allow() }

// spent says that no more is allowed just now, without counting.
func (p *pace) spent(who string) bool { return p.limiter(who).Tokens() < 1 }

// turns lets everybody have a few requests under way at once; the rest wait.
type turns struct {
	lock sync.Mutex
	of   map[string]*turn
}

type turn struct {
	free chan struct{}
	here int // who holds one or waits for it
}

// Of one painter (or address, before somebody is known) so many requests are
// worked on at once, and so many more may wait.
const (
	mostAtOnce  = 4
	mostWaiting = 60
)

// take waits for a turn, until the context ends; release must be called after.
func (t *turns) take(ctx context.Context, who string) (release func(), err error) {
	t.lock.Lock()
	if t.of == nil {
		t.of = map[string]*turn{}
	}
	one := t.of[who]
	if one == nil {
		one = &turn{free: make(chan struct{}, mostAtOnce)}
		t.of[who] = one
	}
	if one.here >= mostAtOnce+mostWaiting {
		t.lock.Unlock()
		return nil, errTooMany
	}
	one.here++
	t.lock.Unlock()
	leave := func() {
		t.lock.Lock()
		defer t.lock.Unlock()
		if one.here--; one.here == 0 {
			delete(t.of, who)
		}
	}
	select {
	case one.free <- struct{}{}:
		return func() { <-one.free; leave() }, nil
	case <-ctx.Done():
		leave()
		return nil, errTooMany
	}
}

var errTooMany = fiber.NewError(fiber.StatusTooManyRequests, "Too much is asked for at once; wait a moment and try again.")
