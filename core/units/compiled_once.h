// For large values that many files hold, copy and destroy. In each such file the compiler makes these members
// (and those of the vectors inside) anew: half of the work of compiling it. Said in the struct and once in a
// source file they are made there alone; the value stays what it was.
//
//   struct Plan { ...; YR_SPECIAL_MEMBERS(Plan) };                       plan.h
//   YR_VECTOR_ELSEWHERE(yr::Run)                                         plan.h, behind the namespace
//   YR_SPECIAL_MEMBERS_HERE(Plan)  YR_VECTOR_HERE(yr::Run)               special_members.cpp
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

// Only what such a struct's own members call: of a whole vector half is used by nobody and all is compiled.
#define YR_VECTOR_MEMBERS(T, elsewhere)                       \
    elsewhere template std::vector<T>::vector(const vector&); \
    elsewhere template std::vector<T>::~vector();             \
    elsewhere template std::vector<T>& std::vector<T>::operator=(const vector&);
#define YR_VECTOR_ELSEWHERE(T) YR_VECTOR_MEMBERS(T, extern)
#define YR_VECTOR_HERE(T) YR_VECTOR_MEMBERS(T, )
