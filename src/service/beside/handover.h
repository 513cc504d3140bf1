// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#if defined(__SANITIZE_THREAD__)
extern "C" void __tsan_acquire(void *address);
extern "C" void __tsan_release(void *address);
#endif

namespace inchpeg
{

/// Work goes from one thread to another, and its result back, through Qt, whose locks the thread sanitizer
/// does not see (Qt is not compiled for it). These two tell it of them: handOver() before work or a result is
/// given away, takeHandedOver() where it has come. In other builds they are nothing.
#if defined(__SANITIZE_THREAD__)
inline char handoverPlace = 0;
inline void handOver()
{
    __tsan_release(&handoverPlace);
}
inline void takeHandedOver()
{
    __tsan_acquire(&handoverPlace);
}
#else
inline void handOver() {}
inline void takeHandedOver() {}
#endif

} // namespace inchpeg
