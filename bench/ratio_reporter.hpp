#pragma once
// Prints each benchmark beside its counterparts, NAME_plain and others, with the ratio.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <string>
#include <utility>
#include <vector>

namespace apsidon::bench {

class RatioReporter : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs) {
      if (run.error_occurred || run.run_type != Run::RT_Iteration) continue;
      // The least of several repetitions: what else the machine does can only add to it.
      // What measures itself does so by the wall.
      const double time =
          run.run_name.time_type.empty() ? run.GetAdjustedCPUTime() : run.GetAdjustedRealTime();
      const auto [at, first] = times_[run.run_name.function_name].try_emplace(run.run_name.args, time);
      if (!first) at->second = std::min(at->second, time);
    }
  }
  void print_ratios() const {
    for (const std::string other : {"plain", "copy", "moving", "rtree", "graphics_view"}) print_ratios(other);
  }

 private:
  void print_ratios(const std::string& other) const {
    bool head = false;
    for (const auto& [name, by_size] : times_) {
      const auto side = times_.find(name + "_" + other);
      if (side == times_.end()) continue;
      if (!std::exchange(head, true)) {
        std::printf("\n%-28s %10s %12s %12s %14s %14s\n", "", "cards", "ours, ns", "ns a card",
                    (other + ", ns").c_str(), (other + " / ours").c_str());
      }
      for (const auto& [size, time] : by_size) {
        const auto theirs = side->second.find(size);
        if (theirs == side->second.end()) continue;
        const double cards = std::atof(size.c_str());
        std::printf("%-28s %10s %12.1f %12.2f %14.1f %14.2f\n", name.c_str(), size.c_str(), time,
                    time / cards, theirs->second, theirs->second / time);
      }
    }
  }

  std::map<std::string, std::map<std::string, double>> times_;
};

inline int run(int argc, char** argv) {
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  RatioReporter reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
  reporter.print_ratios();
  return 0;
}

}  // namespace apsidon::bench
