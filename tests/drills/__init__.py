"""./ydro drill: what could go wrong, made to go wrong on a server of its own, with figures."""
