#pragma once
// Changes a file line by line, as editors, merges and full disks do: bytes alone hardly ever make two lines
// of one. Included by the targets whose files are lines.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <random>
#include <string>
#include <string_view>
#include <vector>

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

extern "C" inline std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most,
                                                      unsigned seed) {
  std::minstd_rand random(seed);
  if (random() % 2 == 0) return LLVMFuzzerMutate(data, size, most);
  std::vector<std::string> lines;
  const std::string_view text(reinterpret_cast<const char*>(data), size);
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find('\n', at), text.size() - 1) + 1;
    lines.emplace_back(text.substr(at, end - at));
    at = end;
  }
  if (lines.empty()) return LLVMFuzzerMutate(data, size, most);
  const auto any = [&] { return static_cast<std::ptrdiff_t>(random() % lines.size()); };
  const std::ptrdiff_t one = any();
  const std::ptrdiff_t other = any();
  switch (random() % 5) {
    case 0:
      lines.insert(lines.begin() + other, std::string(lines[static_cast<std::size_t>(one)]));
      break;
    case 1:
      lines.erase(lines.begin() + one);
      break;
    case 2:
      std::swap(lines[static_cast<std::size_t>(one)], lines[static_cast<std::size_t>(other)]);
      break;
    case 3:
      lines.resize(static_cast<std::size_t>(one) + 1);  // the disk was full
      break;
    default:
      lines[static_cast<std::size_t>(one)].resize(random() %
                                                  (lines[static_cast<std::size_t>(one)].size() + 1));
      break;
  }
  std::size_t written = 0;
  for (const std::string& line : lines) {
    const std::size_t bytes = std::min(line.size(), most - written);
    std::copy_n(line.begin(), bytes, data + written);
    written += bytes;
  }
  return written;
}
