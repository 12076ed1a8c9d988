"""Tables for other programs: CSV and workbooks."""
