/* Integrated loudness, range, and the largest momentary and short-term loudness of a file by libebur128, for
 * `npm run crosscheck`. Built there with: gcc ebur128-reference.c -lebur128 -lsndfile */
#include <ebur128.h>
#include <sndfile.h>
#include <stdio.h>
#include <stdlib.h>
#include <math.h>

int main(int argc, char **argv) {
  SF_INFO info = {0};
  SNDFILE *file = sf_open(argc > 1 ? argv[1] : "", SFM_READ, &info);
  if (!file) return 1;
  ebur128_state *state = ebur128_init(info.channels, info.samplerate, EBUR128_MODE_I | EBUR128_MODE_LRA | EBUR128_MODE_S);
  sf_count_t step = info.samplerate / 10, got;
  double *samples = malloc(sizeof(double) * step * info.channels);
  double momentary = -HUGE_VAL, shortterm = -HUGE_VAL, value, integrated, range;
  long steps = 0;
  while ((got = sf_readf_double(file, samples, step)) > 0) {
    ebur128_add_frames_double(state, samples, got);
    steps++;
    if (steps >= 4 && !ebur128_loudness_momentary(state, &value) && value > momentary) momentary = value;
    if (steps >= 30 && !ebur128_loudness_shortterm(state, &value) && value > shortterm) shortterm = value;
  }
  ebur128_loudness_global(state, &integrated);
  ebur128_loudness_range(state, &range);
  printf("%.6f %.6f %.6f %.6f\n", integrated, range, momentary, shortterm);
  return 0;
}
