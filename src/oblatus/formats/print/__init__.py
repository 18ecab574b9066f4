"""Sheets and cards on paper: HTML from what an answer holds, PDF from that."""
