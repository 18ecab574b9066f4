"""The rules of the job and its physics: pure, in SI, angles in degrees at every public function."""

ENGINE_VERSION = "3.0.1"
