"""What can be done to a build: every act by its code, and the edit each makes."""
