#pragma once
// Looks at every field of a list alike, whatever it is. Not installed.
#include <string_view>

namespace apsidon::geometry_detail {

/// Calls a function with the key of each field, its value, and what else the list says of it. A visitor that
/// treats some fields otherwise derives from it.
template <class Function>
struct EachField {
  Function function;

  template <class... Value>
  void number(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void least(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void whole(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void truth(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void angle(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void seed(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void word(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void words(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void easing(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void spring(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void cues(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void text(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void part(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void layout(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void longest(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void pick(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void rule(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void stock(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void zones(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void flicks(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void select(std::string_view key, Value&&... value) {
    function(key, value...);
  }
  template <class... Value>
  void match(std::string_view key, Value&&... value) {
    function(key, value...);
  }
};

template <class Function>
EachField(Function) -> EachField<Function>;

}  // namespace apsidon::geometry_detail
