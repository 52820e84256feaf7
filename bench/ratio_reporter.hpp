#pragma once
// Prints each benchmark beside its plain counterpart, NAME_plain, with the ratio.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <string>
#include <vector>

namespace apsidon::bench {

class RatioReporter : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs) {
      if (run.error_occurred || run.run_type != Run::RT_Iteration) continue;
      // The least of several repetitions: what else the machine does can only add to it.
      const auto [at, first] =
          times_[run.run_name.function_name].try_emplace(run.run_name.args, run.GetAdjustedCPUTime());
      if (!first) at->second = std::min(at->second, run.GetAdjustedCPUTime());
    }
  }
  void print_ratios() const {
    std::printf("\n%-28s %8s %12s %12s %12s %12s\n", "", "cards", "ours, ns", "ns a card", "plain, ns",
                "plain / ours");
    for (const auto& [name, by_size] : times_) {
      const auto plain = times_.find(name + "_plain");
      if (plain == times_.end()) continue;
      for (const auto& [size, time] : by_size) {
        const auto other = plain->second.find(size);
        if (other == plain->second.end()) continue;
        const double cards = std::atof(size.c_str());
        std::printf("%-28s %8s %12.1f %12.2f %12.1f %12.2f\n", name.c_str(), size.c_str(), time, time / cards,
                    other->second, other->second / time);
      }
    }
  }

 private:
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
