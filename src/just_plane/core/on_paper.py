"""Working distances that the paper of a lens gives: better than a thin lens knows where its front lies."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class RoomOnPaper:
    """Working distance of a lens by one or two of its sizes. Front of the lens to the subject.

    Parameters
    ----------
    magnification : float   At which ``distance`` is given, > 0.
    distance : float        mm, > 0.
    growth : float          mm by which it grows with 1/m: the focal length, of a lens that keeps it.
    """

    magnification: float
    distance: float
    growth: float

    def at(self, magnification):
        """Working distance where the lens works at a size, nothing added: the subject draws off by growth x 1/m.

        Parameters
        ----------
        magnification : float or (N,) array   > 0.

        Returns
        -------
        float or (N,) array                   mm.
        """
        return self.distance + self.growth * (1 / magnification - 1 / self.magnification)


@dataclass(frozen=True, slots=True)
class OnPaper:
    """A lens with its front where the paper has it.

    Parameters
    ----------
    front : float                     Front of the lens to the sensor at its smallest size, nothing between lens and
                                      body, mm.
    growth : float                    By how much the barrel grows from there to the largest size, mm.
    sizes : (float, float)            Its smallest and largest own magnification.
    room : RoomOnPaper
    """

    front: float
    growth: float
    sizes: tuple
    room: RoomOnPaper

    def subject_to_sensor(self, magnification):
        """Of the lens by itself at a setting of its ring.

        Parameters
        ----------
        magnification : float or (N,) array   Its own, > 0.

        Returns
        -------
        float or (N,) array                   mm.
        """
        smallest, largest = self.sizes
        share = (magnification - smallest) / (largest - smallest) if largest > smallest else 0.0
        return self.front + self.growth * share + self.room.at(magnification)
