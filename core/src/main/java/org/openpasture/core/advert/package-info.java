/** AD structures of Bluetooth LE adverts. It knows no radio and no relay. */
package org.openpasture.core.advert;
