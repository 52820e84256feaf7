// Two playfields in two threads share nothing: for the thread sanitizer, and for equal results.
#include <catch2/catch.hpp>
#include <thread>

#include "support/session.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: playfields in several threads are as they are alone") {
  const auto session = [](std::uint64_t seed) {
    Random r(seed);
    Session played(with_rules_in_code(r), {.window = {900, 700}, .feel = springy()}, true);
    for (int i = 0; i < 60; ++i) played.step(r);
    played.finish();
    return std::pair{played.wrong_at_end(), played.told()};
  };
  // The same table, deck and feel in all of them: copies share what never changes.
  using Played = decltype(session(1));
  std::vector<Played> together(4);
  {
    std::vector<std::jthread> threads;
    for (std::uint64_t i = 0; i < together.size(); ++i)
      threads.emplace_back([&, i] { together[i] = session(i / 2); });
  }
  for (std::uint64_t i = 0; i < together.size(); ++i) {
    CHECK(together[i].first == "");
    CHECK(together[i] == session(i / 2));
  }
  CHECK(together[0].second.size() > 20);
  // One snapshot, played on by two.
  Random r(7);
  const Playfield snapshot(with_rules_in_code(r), {.window = {900, 700}});
  std::vector<std::vector<Event>> told(2);
  {
    std::vector<std::jthread> threads;
    for (std::size_t i = 0; i < told.size(); ++i) {
      threads.emplace_back([&, i] {
        Playfield own = snapshot;
        (void)own.performances().deal();
        while (auto event = own.next_event(10)) told[i].push_back(*std::move(event));
      });
    }
  }
  CHECK(told[0] == told[1]);
  CHECK_FALSE(told[0].empty());
}
