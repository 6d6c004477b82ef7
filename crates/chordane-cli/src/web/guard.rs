//! Who may talk to the page's server: only pages that it served itself, with the token of this run.

use std::net::IpAddr;

/// What a request is let in by.
#[derive(Clone, Debug)]
pub(crate) struct Guard {
    token: String,
    port: u16,
    /// The address that was asked for with `--host`, if one was.
    host: Option<IpAddr>,
}

impl Guard {
    pub(crate) fn new(token: String, port: u16, host: Option<IpAddr>) -> Self {
        Self { token, port, host }
    }

    /// Whether a request names this server by one of its own addresses, so that no name that somebody else points here will do.
    pub(crate) fn is_own_host(&self, host: Option<&str>) -> bool {
        let Some(host) = host else { return false };
        let (name, port) = match host.rsplit_once(':') {
            Some((name, port)) if !port.ends_with(']') => (name, port.parse().ok()),
            _ => (host, Some(80)),
        };
        let name = name.trim_start_matches('[').trim_end_matches(']');
        let asked = |ip: IpAddr| self.host.is_some_and(|own| own == ip || own.is_unspecified());
        let known =
            name == "localhost" || name.parse::<IpAddr>().is_ok_and(|ip| ip.is_loopback() || asked(ip));
        known && port == Some(self.port)
    }

    /// Whether a request comes from a page of this server. Programs that are no browsers name no origin.
    pub(crate) fn is_own_origin(&self, origin: Option<&str>) -> bool {
        origin.is_none_or(|origin| {
            origin.strip_prefix("http://").is_some_and(|host| self.is_own_host(Some(host)))
        })
    }

    /// Whether the token of this run is given. All of it is compared, whatever the first difference is.
    pub(crate) fn is_token(&self, given: Option<&str>) -> bool {
        let given = given.unwrap_or_default().as_bytes();
        let own = self.token.as_bytes();
        let differs = given.iter().zip(own).fold(0, |all, (a, b)| all | (a ^ b));
        given.len() == own.len() && differs == 0
    }
}

/// A token that cannot be guessed, if the system gives chance.
pub(crate) fn token() -> Option<String> {
    let mut bytes = [0_u8; 16];
    getrandom::fill(&mut bytes).ok()?;
    Some(bytes.iter().map(|byte| format!("{byte:02x}")).collect())
}

/// What the page may do: fetch nothing but from here, run no script but its own files, and show no picture but its own.
pub(crate) fn policy(nonce: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' blob: data:; \
         connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_own_addresses_and_pages_are_let_in() {
        let guard = Guard::new("0123abcd".to_owned(), 4717, None);
        for host in ["127.0.0.1:4717", "localhost:4717", "[::1]:4717"] {
            assert!(guard.is_own_host(Some(host)), "{host}");
            assert!(guard.is_own_origin(Some(&format!("http://{host}"))), "{host}");
        }
        for host in
            ["kites.example:4717", "127.0.0.1:4718", "127.0.0.1", "192.168.0.9:4717", "", "localhost:x"]
        {
            assert!(!guard.is_own_host(Some(host)), "{host}");
            assert!(!guard.is_own_origin(Some(&format!("http://{host}"))), "{host}");
        }
        assert!(!guard.is_own_host(None));
        assert!(guard.is_own_origin(None));
        assert!(!guard.is_own_origin(Some("null")));
        assert!(!guard.is_own_origin(Some("https://127.0.0.1:4717")));
        let open = Guard::new("0123abcd".to_owned(), 4717, Some("0.0.0.0".parse().unwrap()));
        assert!(open.is_own_host(Some("192.168.0.9:4717")));
        assert!(!open.is_own_host(Some("kites.example:4717")));
    }

    #[test]
    fn the_token_is_compared_whole() {
        let guard = Guard::new("0123abcd".to_owned(), 4717, None);
        assert!(guard.is_token(Some("0123abcd")));
        for other in [None, Some(""), Some("0123abc"), Some("0123abcdd"), Some("0123abce")] {
            assert!(!guard.is_token(other), "{other:?}");
        }
        assert_ne!(token(), token());
        assert_eq!(token().unwrap().len(), 32);
    }
}
