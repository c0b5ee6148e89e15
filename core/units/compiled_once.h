// For large values that many files hold, copy and destroy. In each such file the compiler makes these members
// (and those of the vectors inside) anew: half of the work of compiling it. Said in the struct and once in a
// source file they are made there alone; the value stays what it was.
//
//   struct Plan { ...; YR_SPECIAL_MEMBERS(Plan) };                       plan.h
//   extern template class std::vector<yr::Run>;                          plan.h, behind the namespace
//   YR_SPECIAL_MEMBERS_HERE(Plan)  template class std::vector<yr::Run>;  special_members.cpp
//
// Such a struct is no aggregate any more; Plan{} is all that can be said of it.
#pragma once

#define YR_SPECIAL_MEMBERS(T)   \
    T();                        \
    T(const T&);                \
    T(T&&) noexcept;            \
    T& operator=(const T&);     \
    T& operator=(T&&) noexcept; \
    ~T();

#define YR_SPECIAL_MEMBERS_HERE(T)           \
    T::T() = default;                        \
    T::T(const T&) = default;                \
    T::T(T&&) noexcept = default;            \
    T& T::operator=(const T&) = default;     \
    T& T::operator=(T&&) noexcept = default; \
    T::~T() = default;
