package api

import (
	"net"
	"net/netip"
	"slices"
	"strings"
)

// Listener is where requests come in. Who is on this machine, and who may be told what, goes by it
// alone, never by a header or by the other end of a connection.
type Listener string

const (
	// Loopback is this machine: painters are offered by name, and a passphrase is up to them.
	Loopback Listener = "loopback"
	// Home is a private address, beside loopback: nobody is listed, and nothing is open but signing in
	// and coming in with a code.
	Home Listener = "home"
	// Public is where anybody can reach it: every painter needs a passphrase, and cookies need TLS.
	Public Listener = "public"
)

// scheme is what the pages of a server are asked for by.
func (o Options) scheme() string {
	if o.Listener == Public || o.TLS { // where others can reach it a proxy adds TLS
		return "https"
	}
	return "http"
}

// answersTo says whether a server goes by the name it was asked for. A page elsewhere can point a name
// of its own at this machine, or at one of this house; where TLS is asked for that gets it nothing.
func (o Options) answersTo(host string) bool {
	name := hostName(host)
	switch o.Listener {
	case Loopback:
		ip, err := netip.ParseAddr(name)
		return strings.EqualFold(name, "localhost") || err == nil && ip.IsLoopback()
	case Home:
		return slices.ContainsFunc(o.Names, func(own string) bool { return strings.EqualFold(own, name) })
	}
	return true
}

// hostName is a host without its port.
func hostName(host string) string {
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	return strings.Trim(host, "[]")
}
