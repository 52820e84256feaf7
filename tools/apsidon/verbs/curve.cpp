// apsidon curve: easings and springs, plotted and sampled.
#include <fmt/format.h>

#include <charconv>

#include "apsidon/studio/curves.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct CurveOptions {
  std::vector<std::string> curves;
  std::string out;
  std::string size = "1280x800";
  float seconds = 1;
  int samples = 10;
  Format format = Format::text;
};

/// "spring(0.4, 0.7)", period and damping, or an easing.
PlottedCurve curve_named(const std::string& text, float seconds) {
  PlottedCurve curve{.name = text, .seconds = seconds};
  try {
    if (text.starts_with("spring(") && text.ends_with(")")) {
      const std::string inside = text.substr(7, text.size() - 8);
      const std::size_t comma = inside.find(',');
      Spring spring;
      const auto read = [&](std::string word, float& into) {
        word.erase(0, word.find_first_not_of(' '));
        word.erase(word.find_last_not_of(' ') + 1);
        const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), into);
        if (word.empty() || error != std::errc{} || end != word.data() + word.size()) {
          throw Error(
              fmt::format("spring '{}': spring(PERIOD, DAMPING) is expected, seconds and a number", text));
        }
      };
      read(inside.substr(0, comma), spring.period);
      if (comma != std::string::npos) read(inside.substr(comma + 1), spring.damping);
      check(spring);
      curve.spring = spring;
    } else {
      curve.easing = Easing::parse(text);
    }
  } catch (const Error& e) {
    throw Failure{bad_call, e.what()};
  }
  return curve;
}

int run(const CurveOptions& options) {
  std::vector<PlottedCurve> curves;
  for (const std::string& text : options.curves) curves.push_back(curve_named(text, options.seconds));
  if (curves.empty()) {
    throw Failure{bad_call,
                  "no curve is named: an easing like 'ease-out', or 'spring(0.4, 0.7)', is expected"};
  }
  if (!options.out.empty()) {
    expect_ending("--out", options.out, {".png"});
    make_folder_of(options.out);
    plot_curves(curves, parse_size("--size", options.size)).write_png(options.out);
  }
  if (options.format == Format::csv) print("curve,time,value,speed\n");
  auto json = nlohmann::ordered_json::array();
  for (const PlottedCurve& curve : curves) {
    const CurveFacts facts = facts_of(curve);
    nlohmann::ordered_json entry{{"curve", curve.name},
                                 {"settles", facts.settles},
                                 {"overshoot", facts.overshoot},
                                 {"fastest", facts.fastest},
                                 {"samples", nlohmann::ordered_json::array()}};
    if (options.format == Format::text) {
      print(fmt::format("{}\n  {} {:.3f} s, overshoot {:.2f} %, at most {:.3f} of the way a second\n",
                        curve.name, curve.spring ? "settles in" : "takes", facts.settles,
                        facts.overshoot * 100, facts.fastest));
    }
    for (int i = 0; i <= options.samples; ++i) {
      const float t = facts.settles * static_cast<float>(i) / static_cast<float>(options.samples);
      const EasedValue p = point_of(curve, t);
      if (options.format == Format::csv) {
        print(fmt::format("{},{:.6f},{:.6f},{:.6g}\n", csv(curve.name), t, p.value, p.slope));
      } else if (options.format == Format::json) {
        entry["samples"].push_back({{"time", t}, {"value", p.value}, {"speed", p.slope}});
      } else {
        print(fmt::format("  {:7.3f} s   value {:8.4f}   speed {:9.4f}\n", t, p.value, p.slope));
      }
    }
    json.push_back(entry);
  }
  if (options.format == Format::json) {
    auto whole = json_of_verb("curve");
    whole["curves"] = json;
    print_json(whole);
  }
  if (options.format == Format::text && !options.out.empty()) {
    print(fmt::format("{}: {} {}\n", options.out, curves.size(), curves.size() == 1 ? "curve" : "curves"));
  }
  return yes;
}

}  // namespace

void add_curve(CommandLine& line) {
  Words& words = line.verb("curve", "Easings and springs: value and speed, how long and how far, and a plot");
  auto options = std::make_shared<CurveOptions>();
  words
      .texts("curves", options->curves, "CURVE",
             "An easing as CSS writes it, a shape like quint-in-out, or spring(PERIOD, DAMPING)")
      .number("--seconds", options->seconds, 0.001, 60, "S", "How long the easings take, 1 unless stated")
      .number("--samples", options->samples, 1, 10'000, "N",
              "In how many steps they are printed, 10 unless stated")
      .text("--out", options->out, "FILE", "Also a plot, as a PNG")
      .text("--size", options->size, "WxH", "Of the plot, px; 1280x800 unless stated")
      .format(options->format)
      .example("apsidon curve ease-out 'spring(0.5, 0.6)' --seconds 0.6 --out curves.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
