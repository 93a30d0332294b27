"""Questions asked of qualification records: what was judged, what is qualified, what that covers."""
